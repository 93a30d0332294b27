import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { MetalFound, OwnMetal, ShelfRecord } from '../../api/types'
import { useSession } from '../../app/session'
import { useUnits } from '../../app/units'
import { Button } from '../../ui/Button'
import { counted } from '../../ui/counted'
import { Notice } from '../../ui/Notice'
import { Sources } from '../../ui/Sources'
import { MetalForm } from './MetalForm'
import { RecordDialog } from './RecordDialog'
import { Facts, Rows } from './Rows'
import { Used } from './Used'
import { listedUsedQuery, metalsQuery, recordsQuery } from './queries'

const EMPTY: OwnMetal = { format: 'grounded-bead/metal', version: 1, name: '', family: 'carbon', also: [], yield_steps: [] }

/** The catalogue of base metals, and those of one's own. */
export function MetalsTab({ text }: { text: string }) {
  const { may } = useSession()
  const units = useUnits()
  const strength = (mpa: number | null | undefined) => (mpa == null ? '—' : units.value(mpa, 'strength'))
  const found = useQuery({ ...metalsQuery(text), placeholderData: keepPreviousData })
  const records = useQuery(recordsQuery('metal'))
  const [editing, setEditing] = useState<ShelfRecord | 'new' | null>(null)
  const metals = found.data ?? []
  return (
    <>
      <div className="mb-2 flex items-center gap-4">
        <p role="status" className="text-[13px] text-steel2">{found.data ? counted(metals.length, 'base metal') : ''}</p>
        {may('KEEP_SHELF') && <Button className="ml-auto" onClick={() => setEditing('new')}>Add a metal</Button>}
      </div>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {found.data && metals.length === 0 && (
        <p className="panel p-6 text-steel">No base metal by that name. Try a number, a family such as “austenitic”, or a standard; or add it as a metal of your own.</p>
      )}
      <Rows label="Metals" heads={['Metal', 'Standard', 'Family', 'Condition', 'Group ISO/TR 15608', 'AWS D1.1', `Yield, ${units.unit('strength')}`, `Tensile, ${units.unit('strength')}`]}
        lines={metals.map((one) => {
          const record = records.data?.find((other) => other.name === one.own?.name)
          return {
            key: one.name,
            cells: [one.name, one.own ? `own · ${one.standard}` : one.standard, one.family, one.condition || '—', one.iso_15608 || 'unknown', one.aws_d1_1 ?? '—', strength(one.yield_mpa), strength(one.tensile_mpa)],
            details: () => <Details one={one} {...(record && may('KEEP_SHELF') ? { onCorrect: () => setEditing(record) } : {})} />,
          }
        })} />
      {editing && (
        <RecordDialog<OwnMetal> kind="metal" words="metal" record={editing === 'new' ? null : editing} empty={EMPTY} onClose={() => setEditing(null)}
          form={(document, put, errors) => <MetalForm document={document} put={put} errors={errors} />} />
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
        <dt className="label">Also called</dt>
        <dd className="mb-1.5">{one.also.join(', ') || 'nothing else known here'}</dd>
        <dt className="label">Group {one.iso_15608}</dt>
        <dd className="mb-1.5">{one.reason}</dd>
        <dt className="label">Magnet</dt>
        <dd>{one.family === 'nickel' ? 'sticks to some' : one.magnetic ? 'sticks' : 'does not stick'}</dd>
      </dl>
      <Facts words="Minimum yield by thickness">
        <ul className="tabular-nums">
          {one.yield_steps_mpa.map(([top, value]) => (
            <li key={top}>up to {units.value(Number(top), 'thickness')} {units.unit('thickness')}: {units.value(Number(value), 'strength')} {units.unit('strength')}</li>
          ))}
          {one.yield_steps_mpa.length === 0 && <li>not stated</li>}
        </ul>
      </Facts>
      <Facts words="Chemistry that matters, %">
        <p className="tabular-nums">
          {Object.entries(one.chemistry).map(([element, [low, high]]) => `${element} ${Number(low) > 0 ? `${String(low)}–${String(high)}` : `≤ ${String(high)}`}`).join(' · ') || 'not stated'}
        </p>
        <Sources citations={[one.citation]} />
      </Facts>
      <Facts words="Used in">
        {onCorrect && <button type="button" className="link mb-1 text-[13px]" onClick={onCorrect}>Correct or remove</button>}
        <Used found={used} />
      </Facts>
    </div>
  )
}
