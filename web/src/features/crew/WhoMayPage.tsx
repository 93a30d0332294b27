import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'

import type { WhoMay } from '../../api/types'
import { whoMayQuery, type WhoMayAsked } from '../../queries/crew'
import { proceduresQuery } from '../../queries/procedures'
import { useJob } from '../../session/job'
import { Choice } from '../../ui/Choice'
import { Notice } from '../../ui/Notice'
import { MarkIcon, type Mark } from '../../ui/Verdict'
import { CrewHead } from './CrewHead'

type Standing = WhoMay['people'][number]['standing']
const MARKS: Record<Standing, Mark> = {
  may: 'holds',
  open: 'unknown',
  lapsed: 'breach',
  blocked: 'breach',
  untested: 'breach',
}
const HEADINGS: readonly [Standing, string][] = [
  ['may', t`May weld it`],
  ['open', t`Not decided: a fact is missing`],
  ['lapsed', t`Qualified, but the certificate has lapsed`],
  ['blocked', t`Not qualified for this`],
  ['untested', t`Without a certificate of this code`],
]

function askedOf(params: URLSearchParams): WhoMayAsked | null {
  const [mark, job, revision, coupon] = ['mark', 'job', 'revision', 'coupon'].map((one) => params.get(one))
  if (coupon) return { kind: 'coupon', id: Number(coupon) }
  if (mark && job && revision) return { kind: 'joint', jobId: Number(job), mark, revisionId: Number(revision) }
  return revision ? { kind: 'revision', id: Number(revision) } : null
}

/** Who may weld a procedure, a coupon or a joint today; who nearly may, and what is missing. */
export function WhoMayPage() {
  const [params, setParams] = useSearchParams()
  const asked = askedOf(params)
  return (
    <div className="px-5 py-4">
      <CrewHead more={t`Who may weld it`}>
        <Procedures
          chosen={asked?.kind === 'revision' ? asked.id : null}
          onChoose={(id) => setParams({ revision: String(id) })}
        />
      </CrewHead>
      {asked ? (
        <Answer key={JSON.stringify(asked)} asked={asked} />
      ) : (
        <p className="text-steel">
          <Trans>Choose a procedure, or open this page from a joint, a procedure or a coupon.</Trans>
        </p>
      )}
    </div>
  )
}

function Procedures({ chosen, onChoose }: { chosen: number | null; onChoose: (id: number) => void }) {
  const { job } = useJob()
  const list = useQuery({ ...proceduresQuery(job?.id ?? 0), enabled: job !== null && job !== undefined })
  if (!list.data) return null
  return (
    <div className="ml-auto w-80">
      <Choice
        label={t`Procedure`}
        none={t`Choose a procedure`}
        value={chosen === null ? null : String(chosen)}
        options={list.data.map((one) => [String(one.id), `${one.number} ${one.letter} · ${one.title}`] as const)}
        onChange={(next: string | null) => next && onChoose(Number(next))}
      />
    </div>
  )
}

function Answer({ asked }: { asked: WhoMayAsked }) {
  const found = useQuery(whoMayQuery(asked))
  if (found.isError) return <Notice mark="breach">{found.error.message}</Notice>
  if (!found.data)
    return (
      <p className="text-steel" role="status">
        <Trans>Looking …</Trans>
      </p>
    )
  const { what, code, on, people, open } = found.data
  const may = people.filter((one) => one.standing === 'may').length
  return (
    <div className="grid gap-3">
      <div>
        <h2 className="font-head text-[19px] font-semibold">{what}</h2>
        <p className="text-steel" role="status">
          {plural(may, { 0: 'Nobody may weld it', one: '# person may weld it', other: '# people may weld it' })}
          {code && ` · ${t`by ${code}, on ${on}`}`}
        </p>
      </div>
      {open.length > 0 && <Notice mark="unknown">{open.join(' ')}</Notice>}
      <Asked asked={found.data.asked} />
      {HEADINGS.map(([standing, words]) => (
        <Group
          key={standing}
          words={words}
          mark={MARKS[standing]}
          people={people.filter((one) => one.standing === standing)}
        />
      ))}
      <p className="text-[12.5px] text-steel2">
        <Trans>
          By what is entered here. The person responsible for welding decides who welds, by the codes and the law that
          hold where the work is done.
        </Trans>
      </p>
    </div>
  )
}

const ASKED_AT_ONCE = 4

/** What has to be covered, in the designations of the code. */
function Asked({ asked }: { asked: readonly string[] }) {
  const [all, setAll] = useState(false)
  const shown = all ? asked : asked.slice(0, ASKED_AT_ONCE)
  const more = asked.length - shown.length
  if (asked.length === 0) return null
  return (
    <details className="text-[13px]" open={asked.length <= ASKED_AT_ONCE}>
      <summary className="cursor-pointer text-steel2">
        {plural(asked.length, {
          one: 'What has to be covered',
          other: 'What has to be covered: # welds, each of them',
        })}
      </summary>
      <ul className="mt-1 grid gap-0.5 pl-4">
        {shown.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      {more > 0 && (
        <button type="button" className="link pl-4" onClick={() => setAll(true)}>
          {plural(more, { one: '# more', other: '# more' })}
        </button>
      )}
    </details>
  )
}

/** By which certificates, and until when they hold as they stand. */
function byWords({ by, until }: WhoMay['people'][number]): string {
  const certificates = by.join(', ')
  if (by.length === 0) return t`Why not is left out of so long a list.`
  return until ? t`${certificates}, until ${until}` : certificates
}

function Group({ words, mark, people }: { words: string; mark: Mark; people: WhoMay['people'] }) {
  if (people.length === 0) return null
  return (
    <section aria-label={words} className="panel px-3 py-2">
      <h3 className="flex items-baseline gap-1.5 font-head text-[16px] font-semibold">
        <MarkIcon mark={mark} size={11} silent />
        {words}
      </h3>
      <ul className="mt-1 grid gap-1">
        {people.map((one) => (
          <li key={one.id} className="grid grid-cols-[200px_minmax(0,1fr)] gap-3 max-sm:grid-cols-1">
            <Link className="link self-start py-0.5" to={`/crew/${String(one.id)}`}>
              {one.name} {one.mark && `(${one.mark})`}
            </Link>
            <span className="min-w-0 text-[13.5px]">{one.reasons.join(' ') || byWords(one)}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}
