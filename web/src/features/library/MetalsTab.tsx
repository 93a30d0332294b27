import { plural, t } from '@lingui/core/macro'
import { inWords } from '../../domain/words'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { MetalFound, OwnMetal, LibraryRecord } from '../../api/types'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { Sources } from '../../ui/Sources'
import { MetalForm } from './MetalForm'
import { RecordDialog } from './RecordDialog'
import { Facts, Rows } from './Rows'
import { Used } from './Used'
import { listedUsedQuery, metalsQuery, recordsQuery } from '../../queries/library'
import { TabHead } from './TabHead'

const EMPTY: OwnMetal = {
  format: 'grounded-bead/metal',
  version: 1,
  name: '',
  family: 'carbon',
  also: [],
  yield_steps: [],
}

/** The catalogue of base metals, and those of one's own. */
export function MetalsTab({ text }: { text: string }) {
  const { may } = useSession()
  const units = useUnits()
  const strength = (mpa: number | null | undefined) => (mpa == null ? '—' : units.value(mpa, 'strength'))
  const found = useQuery({ ...metalsQuery(text), placeholderData: keepPreviousData })
  const records = useQuery(recordsQuery('metal'))
  const [editing, setEditing] = useState<LibraryRecord | 'new' | null>(null)
  const metals = found.data ?? []
  return (
    <>
      <TabHead
        count={found.data ? plural(metals.length, { one: '# base metal', other: '# base metals' }) : ''}

        addWords={t`Add a metal`}
        onAdd={() => setEditing('new')}
        failed={found.error}
        nothing={
          found.data && metals.length === 0 ? (
            <Trans>
              No base metal by that name. Try a number, a family such as “austenitic”, or a standard; or add it as a
              metal of your own.
            </Trans>
          ) : undefined
        }
      />
      <Rows
        label={t`Metals`}
        heads={[
          t`Metal`,
          t`Standard`,
          t`Family`,
          t`Condition`,
          t`Group ISO/TR 15608`,
          t`AWS D1.1`,
          t`Yield, ${units.unit('strength')}`,
          t`Tensile, ${units.unit('strength')}`,
        ]}
        lines={metals.map((one) => {
          const record = records.data?.find((other) => other.name === one.own?.name)
          return {
            key: one.name,
            cells: [
              one.name,
              one.own ? t`own · ${one.standard}` : one.standard,
              inWords(one.family),
              one.condition || '—',
              one.iso_15608 || t`unknown`,
              one.aws_d1_1 ?? '—',
              strength(one.yield_mpa),
              strength(one.tensile_mpa),
            ],
            details: () => (
              <Details one={one} {...(record && may('KEEP_LIBRARY') ? { onCorrect: () => setEditing(record) } : {})} />
            ),
          }
        })}
      />
      {editing && (
        <RecordDialog<OwnMetal>
          kind="metal"
          words={t`metal`}
          record={editing === 'new' ? null : editing}
          empty={EMPTY}
          onClose={() => setEditing(null)}
          form={(document, put, errors) => <MetalForm document={document} put={put} errors={errors} />}
        />
      )}
    </>
  )
}

function Details({ one, onCorrect }: { one: MetalFound; onCorrect?: () => void }) {
  const units = useUnits()
  const used = useQuery(listedUsedQuery('metal', one.name))
  return (
    <div className="grid grid-cols-4 gap-6">
      <dl>
        <dt className="label">
          <Trans>Also called</Trans>
        </dt>
        <dd className="mb-1.5">{one.also.join(', ') || t`nothing else known here`}</dd>
        <dt className="label">
          <Trans>Group {one.iso_15608}</Trans>
        </dt>
        <dd className="mb-1.5">{one.reason}</dd>
        <dt className="label">
          <Trans>Magnet</Trans>
        </dt>
        <dd>{one.family === 'nickel' ? t`sticks to some` : one.magnetic ? 'sticks' : t`does not stick`}</dd>
      </dl>
      <Facts words={t`Minimum yield by thickness`}>
        <ul className="tabular-nums">
          {one.yield_steps_mpa.map(([top, value]) => (
            <li key={top}>
              <Trans>
                up to {units.value(Number(top), 'thickness')} {units.unit('thickness')}:{' '}
                {units.value(Number(value), 'strength')} {units.unit('strength')}
              </Trans>
            </li>
          ))}
          {one.yield_steps_mpa.length === 0 && (
            <li>
              <Trans>not stated</Trans>
            </li>
          )}
        </ul>
      </Facts>
      <Facts words={t`Chemistry that matters, %`}>
        <p className="tabular-nums">
          {Object.entries(one.chemistry)
            .map(
              ([element, [low, high]]) =>
                `${element} ${Number(low) > 0 ? `${String(low)}–${String(high)}` : `≤ ${String(high)}`}`,
            )
            .join(' · ') || t`not stated`}
        </p>
        <Sources citations={[one.citation]} />
      </Facts>
      <Facts words={t`Used in`}>
        {onCorrect && (
          <button type="button" className="link mb-1 text-[13px]" onClick={onCorrect}>
            <Trans>Correct or remove</Trans>
          </button>
        )}
        <Used found={used} />
      </Facts>
    </div>
  )
}
