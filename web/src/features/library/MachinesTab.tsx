import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Machine, LibraryRecord } from '../../api/types'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { FAMILY_WORDS } from '../../domain/words'
import { MachineForm } from './MachineForm'
import { RecordDialog } from './RecordDialog'
import { Facts, Rows } from './Rows'
import { Used } from './Used'
import { recordUsedQuery, recordsQuery } from '../../queries/library'
import { TabHead } from './TabHead'

const EMPTY: Machine = {
  format: 'grounded-bead/machine',
  version: 1,
  name: '',
  supplies: [{ name: '400 V', envelopes: [] }],
  meters: [],
}

/** The shop's power sources. */
export function MachinesTab({ text }: { text: string }) {
  const { may } = useSession()
  const units = useUnits()
  const found = useQuery(recordsQuery('machine'))
  const [editing, setEditing] = useState<LibraryRecord | 'new' | null>(null)
  const all = found.data ?? []
  const shown = all.filter((one) => one.name.toLowerCase().includes(text.trim().toLowerCase()))
  return (
    <>
      <TabHead
        count={found.data ? plural(shown.length, { one: '# machine', other: '# machines' }) : ''}

        addWords={t`Add a machine`}
        onAdd={() => setEditing('new')}
        failed={found.error}
        nothing={
          found.data && shown.length === 0
            ? all.length === 0
              ? t`No machine in the library. Add one, and procedures are checked against what it delivers.`
              : t`No machine by that name.`
            : undefined
        }
      />
      <Rows
        label={t`Machines`}
        heads={[t`Machine`, t`Does`, t`Current, A`, t`Connected to`, t`Meters`, t`Dial`, t`Used in`]}
        lines={shown.map((one) => {
          const machine = one.document as Machine
          const supply = machine.supplies.find((other) => other.name === machine.connected) ?? machine.supplies[0]
          return {
            key: String(one.id),
            cells: [
              one.name,
              supply?.envelopes.map((other) => FAMILY_WORDS[other.family]).join(', ') || '—',
              supply?.envelopes.map((other) => units.range(other.current_a, 'current')).join(', ') || '—',
              supply?.name ?? '—',
              machine.meters.length === 0 ? (
                t`none on record`
              ) : one.overdue_meters.length > 0 ? (
                <span key="due" className="font-semibold text-caution">
                  <Trans>{one.overdue_meters.join(', ')} overdue</Trans>
                </span>
              ) : (
                t`in date`
              ),
              machine.dial && machine.dial.points.length > 0
                ? t`${machine.dial.points.length} settings measured`
                : t`not measured`,
              one.used_in,
            ],
            details: () => (
              <Details
                one={one}
                machine={machine}
                {...(may('KEEP_LIBRARY') ? { onCorrect: () => setEditing(one) } : {})}
              />
            ),
          }
        })}
      />
      {editing && (
        <RecordDialog<Machine>
          kind="machine"
          words={t`machine`}
          record={editing === 'new' ? null : editing}
          empty={EMPTY}
          onClose={() => setEditing(null)}
          form={(document, put, errors) => <MachineForm document={document} put={put} errors={errors} />}
        />
      )}
    </>
  )
}

function Details({ one, machine, onCorrect }: { one: LibraryRecord; machine: Machine; onCorrect?: () => void }) {
  const units = useUnits()
  const used = useQuery(recordUsedQuery(one.id))
  return (
    <div className="grid grid-cols-4 gap-6">
      <div className="col-span-2 min-w-0">
        {machine.supplies.map((supply) => (
          <Facts key={supply.name} words={`On ${supply.name}`}>
            <ul className="mb-2 tabular-nums">
              {supply.envelopes.map((other) => (
                <li key={other.family}>
                  <b>{FAMILY_WORDS[other.family]}</b>{' '}
                  {[
                    `${units.range(other.current_a, 'current')} A`,
                    other.voltage_v && `${units.range(other.voltage_v, 'voltage')} V`,
                    other.wire_feed_m_min &&
                      `${units.range(other.wire_feed_m_min, 'wire_feed')} ${units.unit('wire_feed')}`,
                    other.duty.length > 0 &&
                      t`duty ${other.duty.map((point) => t`${point.percent} % at ${point.current_a} A`).join(', ')}`,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </li>
              ))}
              {supply.envelopes.length === 0 && (
                <li>
                  <Trans>nothing stated</Trans>
                </li>
              )}
            </ul>
          </Facts>
        ))}
        {machine.notes && <p className="text-steel">{machine.notes}</p>}
      </div>
      <Facts words={t`Meters`}>
        <ul>
          {machine.meters.map((meter) => (
            <li key={meter.name}>
              {meter.name}: {meter.calibrated_on ? t`calibrated ${meter.calibrated_on}` : t`no date`}
              {meter.due_on ? t`, due ${meter.due_on}` : ''}
            </li>
          ))}
          {machine.meters.length === 0 && (
            <li>
              <Trans>none on record</Trans>
            </li>
          )}
        </ul>
      </Facts>
      <Facts words={t`Used in`}>
        {onCorrect && (
          <button type="button" className="link mb-1 text-[13px]" onClick={onCorrect}>
            <Trans>Correct or remove</Trans>
          </button>
        )}
        <Used found={used} />
        <p className="mt-1 text-[12px] text-steel2">
          <Trans>saved by {one.saved_by}</Trans>
        </p>
      </Facts>
    </div>
  )
}
