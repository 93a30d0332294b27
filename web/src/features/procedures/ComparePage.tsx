import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'

import type { Revision } from '../../api/types'
import { useJob } from '../../session/job'
import { useUnits } from '../../session/units'
import { differences } from '../../domain/diff'
import { pathWords, valueWords } from '../../domain/fieldWords'
import { Choice } from '../../ui/Choice'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { proceduresQuery, revisionQuery } from '../../queries/procedures'
import { digits, fixed } from '../../session/language'

/** Numbers of a document with the decimal sign of the language; names and codes as they stand. */
const shown = (text: string) => (/^-?\d+(\.\d+)?$/.test(text) ? digits(valueWords(text)) : valueWords(text))

/** Two procedures side by side: their sections, their heat, and every field that differs. */
export function ComparePage() {
  const { job } = useJob()
  const { system } = useUnits()
  const [params, setParams] = useSearchParams()
  const lines = useQuery({ ...proceduresQuery(job?.id ?? 0), enabled: job !== undefined })
  const ids = [Number(params.get('left')), Number(params.get('right'))] as const
  const left = useQuery({ ...revisionQuery(ids[0], system), enabled: ids[0] > 0 })
  const right = useQuery({ ...revisionQuery(ids[1], system), enabled: ids[1] > 0 })
  const options = (lines.data ?? []).map(
    (one) => [String(one.id), `${one.number} ${one.letter}, ${one.title}`] as const,
  )
  const known = new Set(options.map(([id]) => id))
  const both = left.data && right.data
  return (
    <div className="px-5 py-4">
      <PageTitle words={t`Compare two drafts`} className="mb-3" />
      <div className="grid grid-cols-2 gap-4">
        {(
          [
            ['left', left],
            ['right', right],
          ] as const
        ).map(([side, found], index) => (
          <section key={side} aria-label={t`Draft ${index + 1}`}>
            <Choice
              label={t`Draft ${index + 1}`}
              none={t`choose a procedure`}
              value={params.get(side)}
              options={
                found.data && !known.has(String(found.data.id))
                  ? [[String(found.data.id), `${found.data.number} ${found.data.letter}`], ...options]
                  : options
              }
              onChange={(id) =>
                setParams(
                  (before) => {
                    const next = new URLSearchParams(before)
                    if (id) next.set(side, id)
                    else next.delete(side)
                    return next
                  },
                  { replace: true },
                )
              }
            />
            {found.isError && (
              <Notice mark="breach" className="mt-2">
                {found.error.message}
              </Notice>
            )}
            {found.data && <Side revision={found.data} />}
          </section>
        ))}
      </div>
      {both && <Differences left={left.data} right={right.data} />}
    </div>
  )
}

function Side({ revision }: { revision: Revision }) {
  const units = useUnits()
  const { evaluation } = revision
  const heat = new Map(evaluation.heat_input.map((one) => [one.pass_number, one.max_kj_mm]))
  const lowest = Math.min(...evaluation.heat_input.map((one) => one.min_kj_mm))
  const highest = Math.max(...evaluation.heat_input.map((one) => one.max_kj_mm))
  const breaches = evaluation.findings.filter((one) => one.verdict === 'violates')
  const use = evaluation.use
  return (
    <>
      <div className="panel mt-2 grid h-[240px] place-items-center p-2">
        {evaluation.drawing ? (
          <SectionDrawing drawing={evaluation.drawing} heat={heat} fit />
        ) : (
          <p className="text-steel2">
            <Trans>Not drawn: joint or thickness is not stated.</Trans>
          </p>
        )}
      </div>
      <dl className="mt-2 grid grid-cols-[130px_minmax(0,1fr)] gap-y-0.5 text-[13px] [&>dt]:text-steel2">
        <dt>
          <Trans>Passes</Trans>
        </dt>
        <dd>{revision.document.passes.length}</dd>
        <dt>{evaluation.heat_word}</dt>
        <dd>
          {evaluation.heat_input.length > 0
            ? `${units.range({ min: lowest, max: highest }, 'heat_input')} ${units.unit('heat_input')}`
            : '—'}
        </dd>
        <dt>
          <Trans>Weld metal</Trans>
        </dt>
        <dd>{use ? t`${fixed(use.weld_metal_kg_m, 2)} kg/m` : '—'}</dd>
        <dt>
          <Trans>Arc time</Trans>
        </dt>
        <dd>{use?.arc_min_m != null ? t`${fixed(use.arc_min_m, 1)} min/m` : '—'}</dd>
        <dt>
          <Trans>Nonconformities, cautions</Trans>
        </dt>
        <dd>{breaches.length === 0 ? t`none` : breaches.map((one) => one.title).join('; ')}</dd>
      </dl>
    </>
  )
}

function Differences({ left, right }: { left: Revision; right: Revision }) {
  const own = new Set(['number', 'revision'])
  const found = differences(left.document, right.document).filter(
    (one) =>
      !own.has(one.path) &&
      !one.path.startsWith('shelf.') &&
      !one.path.includes('.sources.') &&
      !/^passes\.\d+\.id$/.test(one.path),
  )
  return (
    <section aria-label={t`Differences`} className="mt-4">
      <h2 className="border-b border-line pb-1 text-[17px]">
        {found.length === 0
          ? t`Nothing differs`
          : plural(found.length, { one: '# field differs', other: '# fields differ' })}
      </h2>
      {found.length > 0 && (
        <table className="w-full text-[13px]">
          <thead className="label text-left">
            <tr>
              <th className="py-1 font-medium">
                <Trans>Field</Trans>
              </th>
              <th className="py-1 font-medium">
                {left.number} {left.letter}
              </th>
              <th className="py-1 font-medium">
                {right.number} {right.letter}
              </th>
            </tr>
          </thead>
          <tbody>
            {found.map((one) => (
              <tr key={one.path} className="border-b border-hair">
                <td className="py-0.5 pr-3 text-steel2">{pathWords(one.path)}</td>
                <td className="py-0.5 pr-3 [overflow-wrap:anywhere]">{shown(one.mine)}</td>
                <td className="py-0.5 [overflow-wrap:anywhere]">{shown(one.theirs)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}
