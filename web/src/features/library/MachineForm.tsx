import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useRef, useState } from 'react'

import type { BalanceDial, Machine } from '../../api/types'
import { BALANCES } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { EMPTY_ROW, RunOuts, dialOf, type Row } from '../calculators'
import { Piece, changed, without, type FormProps } from './FormParts'
import { SupplyPart } from './SupplyPart'

/** A power source: what it delivers on each supply, its meters, its dials. */
export function MachineForm({ document, put, errors }: FormProps<Machine>) {
  const supplies = document.supplies
  // Half a row waits here until it is whole; whole rows go into the record.
  const [rows, setRows] = useState<Row[]>(() =>
    document.dial && document.dial.points.length > 0
      ? document.dial.points.map((one) => ({ ...one }))
      : [EMPTY_ROW, EMPTY_ROW],
  )
  const newest = useRef(rows)
  const measure = (change: (before: readonly Row[]) => Row[]) => {
    const next = change(newest.current)
    newest.current = next
    setRows(next)
    put((before) => ({ dial: { ...before.dial, points: dialOf(next).points } }))
  }
  const dial = document.dial
  return (
    <>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words={t`Name`} wide>
          <TextField
            label={t`Name of the machine`}
            value={document.name}
            onChange={(name) => put({ name: name ?? '' })}
            error={errors.get('name')}
          />
        </Labelled>
        <Labelled words={t`Notes`} wide>
          <TextField label={t`Notes`} value={document.notes} onChange={(notes) => put({ notes })} />
        </Labelled>
      </div>
      {supplies.map((supply, index) => (
        <SupplyPart
          key={index}
          supply={supply}
          several={supplies.length > 1}
          connected={(document.connected ?? supplies[0]?.name) === supply.name}
          onConnect={() => put({ connected: supply.name })}
          onRemove={() =>
            put((before) => ({
              supplies: without(before.supplies, index),
              ...(before.connected === supply.name ? { connected: null } : {}),
            }))
          }
          onChange={(change) =>
            put((before) => {
              const next = changed(before.supplies, index, change)
              const old = before.supplies[index]?.name
              return { supplies: next, ...(before.connected === old ? { connected: next[index]?.name ?? null } : {}) }
            })
          }
        />
      ))}
      <button
        type="button"
        className="link mt-1 text-[13px]"
        onClick={() =>
          put((before) => ({
            supplies: [
              ...before.supplies,
              {
                name: before.supplies.some((one) => one.name === '230 V')
                  ? t`supply ${before.supplies.length + 1}`
                  : '230 V',
                envelopes: [],
              },
            ],
          }))
        }
      >
        <Trans>Add a supply, on which it delivers less</Trans>
      </button>
      <Piece title={t`Meters`}>
        <div className="grid grid-cols-[minmax(0,1fr)_130px_130px_60px] items-center gap-x-3 gap-y-1 text-[13px]">
          {document.meters.map((meter, index) => {
            const set = (changes: Partial<typeof meter>) =>
              put((before) => ({ meters: changed(before.meters, index, (one) => ({ ...one, ...changes })) }))
            return (
              <div key={index} className="contents">
                <TextField
                  label={t`Meter ${index + 1}`}
                  value={meter.name}
                  onChange={(name) => set({ name: name ?? '' })}
                  error={errors.get(`meters.${String(index)}.name`)}
                />
                <TextField
                  label={t`Calibrated on, meter ${index + 1}`}
                  value={meter.calibrated_on}
                  placeholder={t`calibrated on`}
                  onChange={(calibrated_on) => set({ calibrated_on })}
                  error={errors.get(`meters.${String(index)}.calibrated_on`)}
                />
                <TextField
                  label={t`Due on, meter ${index + 1}`}
                  value={meter.due_on}
                  placeholder={t`due on`}
                  onChange={(due_on) => set({ due_on })}
                  error={errors.get(`meters.${String(index)}.due_on`)}
                />
                <button
                  type="button"
                  className="link w-fit text-[12px]"
                  onClick={() => put((before) => ({ meters: without(before.meters, index) }))}
                >
                  <Trans>remove</Trans>
                </button>
              </div>
            )
          })}
        </div>
        <button
          type="button"
          className="link text-[13px]"
          onClick={() =>
            put((before) => ({
              meters: [...before.meters, { name: before.meters.length === 0 ? t`volts and amps` : '' }],
            }))
          }
        >
          <Trans>Add a meter</Trans>
        </button>
      </Piece>
      <Piece title={t`Wire feed dial, by run-out`}>
        <div className="mb-1 w-56">
          <Labelled words={t`Measured with wire`}>
            <TextField
              label={t`Measured with wire`}
              value={dial?.wire}
              placeholder={t`1.2 solid`}
              onChange={(wire) => put((before) => ({ dial: { points: [], ...before.dial, wire } }))}
            />
          </Labelled>
        </div>
        <RunOuts rows={rows} onChange={measure} />
      </Piece>
      <Piece title={t`AC balance dial`}>
        <div className="grid grid-cols-4 gap-x-3 text-[13px]">
          <Labelled words={t`It counts`}>
            <Choice<BalanceDial['convention']>
              label={t`Balance dial counts`}
              value={document.balance_dial?.convention}
              none={t`has none`}
              options={BALANCES}
              onChange={(convention) =>
                put({
                  balance_dial:
                    convention === null
                      ? null
                      : convention === 'signed'
                        ? { convention, zero_en_share: 0.7, step_en_share: 0.03 }
                        : { convention },
                })
              }
            />
          </Labelled>
          {document.balance_dial?.convention === 'signed' && (
            <>
              <Labelled words={t`Negative at zero`}>
                <QuantityField
                  label={t`Share negative at zero`}
                  kind="percent"
                  value={(document.balance_dial.zero_en_share ?? 0) * 100}
                  onChange={(share) => {
                    if (share)
                      put((before) =>
                        before.balance_dial
                          ? { balance_dial: { ...before.balance_dial, zero_en_share: share / 100 } }
                          : {},
                      )
                  }}
                />
              </Labelled>
              <Labelled words={t`A step adds, %`}>
                <QuantityField
                  label={t`A step adds`}
                  kind="number"
                  value={(document.balance_dial.step_en_share ?? 0) * 100}
                  onChange={(share) => {
                    if (share)
                      put((before) =>
                        before.balance_dial
                          ? { balance_dial: { ...before.balance_dial, step_en_share: share / 100 } }
                          : {},
                      )
                  }}
                />
              </Labelled>
            </>
          )}
        </div>
      </Piece>
    </>
  )
}
