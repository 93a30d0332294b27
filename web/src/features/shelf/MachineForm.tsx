import { useState } from 'react'

import type { BalanceDial, Envelope, Machine, Supply } from '../../api/types'
import { BALANCES, FAMILY_WORDS } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { EMPTY_ROW, RunOuts, dialOf, type Row } from '../bench'
import { Labelled, Piece, changed, type FormProps } from './FormParts'

const FAMILIES = ['stick', 'tig', 'wire'] as const

/** A power source: what it delivers on each supply, its meters, its dials. */
export function MachineForm({ document, put, errors }: FormProps<Machine>) {
  const supplies = document.supplies
  const [rows, setRows] = useState<Row[]>(() => (document.dial && document.dial.points.length > 0 ? document.dial.points.map((one) => ({ ...one })) : [EMPTY_ROW, EMPTY_ROW]))
  const dial = document.dial
  return (
    <>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words="Name" wide><TextField label="Name of the machine" value={document.name} onChange={(name) => put({ name: name ?? '' })} error={errors.get('name')} /></Labelled>
        <Labelled words="Notes" wide><TextField label="Notes" value={document.notes} onChange={(notes) => put({ notes })} /></Labelled>
      </div>
      {supplies.map((supply, index) => (
        <SupplyPart key={index} supply={supply} several={supplies.length > 1} connected={(document.connected ?? supplies[0]?.name) === supply.name}
          onConnect={() => put({ connected: supply.name })}
          onChange={(next) => put({ supplies: changed(supplies, index, next), ...(document.connected === supply.name ? { connected: next?.name ?? null } : {}) })} />
      ))}
      <button type="button" className="link mt-1 text-[13px]" onClick={() => put({ supplies: [...supplies, { name: supplies.some((one) => one.name === '230 V') ? `supply ${String(supplies.length + 1)}` : '230 V', envelopes: [] }] })}>
        Add a supply, on which it delivers less
      </button>
      <Piece title="Meters">
        <div className="grid grid-cols-[minmax(0,1fr)_130px_130px_60px] items-center gap-x-3 gap-y-1 text-[13px]">
          {document.meters.map((meter, index) => {
            const set = (changes: Partial<typeof meter>) => put({ meters: changed(document.meters, index, { ...meter, ...changes }) })
            return (
              <div key={index} className="contents">
                <TextField label={`Meter ${String(index + 1)}`} value={meter.name} onChange={(name) => set({ name: name ?? '' })} error={errors.get(`meters.${String(index)}.name`)} />
                <TextField label={`Calibrated on, meter ${String(index + 1)}`} value={meter.calibrated_on} placeholder="calibrated on" onChange={(calibrated_on) => set({ calibrated_on })} error={errors.get(`meters.${String(index)}.calibrated_on`)} />
                <TextField label={`Due on, meter ${String(index + 1)}`} value={meter.due_on} placeholder="due on" onChange={(due_on) => set({ due_on })} error={errors.get(`meters.${String(index)}.due_on`)} />
                <button type="button" className="link w-fit text-[12px]" onClick={() => put({ meters: changed(document.meters, index, null) })}>remove</button>
              </div>
            )
          })}
        </div>
        <button type="button" className="link text-[13px]" onClick={() => put({ meters: [...document.meters, { name: document.meters.length === 0 ? 'volts and amps' : '' }] })}>Add a meter</button>
      </Piece>
      <Piece title="Wire feed dial, by run-out">
        <div className="mb-1 w-56"><Labelled words="Measured with wire"><TextField label="Measured with wire" value={dial?.wire} placeholder="1.2 solid" onChange={(wire) => put({ dial: { ...dialOf(rows), ...dial, wire } })} /></Labelled></div>
        <RunOuts rows={rows} onChange={(next) => { setRows(next); put({ dial: { ...dial, points: dialOf(next).points } }) }} />
      </Piece>
      <Piece title="AC balance dial">
        <div className="grid grid-cols-4 gap-x-3 text-[13px]">
          <Labelled words="It counts">
            <Choice<BalanceDial['convention']> label="Balance dial counts" value={document.balance_dial?.convention} none="has none" options={BALANCES}
              onChange={(convention) => put({ balance_dial: convention === null ? null : convention === 'signed' ? { convention, zero_en_share: 0.7, step_en_share: 0.03 } : { convention } })} />
          </Labelled>
          {document.balance_dial?.convention === 'signed' && (
            <>
              <Labelled words="Negative at zero"><QuantityField label="Share negative at zero" kind="percent" value={(document.balance_dial.zero_en_share ?? 0) * 100} onChange={(share) => { if (document.balance_dial && share) put({ balance_dial: { ...document.balance_dial, zero_en_share: share / 100 } }) }} /></Labelled>
              <Labelled words="A step adds, %"><QuantityField label="A step adds" kind="number" value={(document.balance_dial.step_en_share ?? 0) * 100} onChange={(share) => { if (document.balance_dial && share) put({ balance_dial: { ...document.balance_dial, step_en_share: share / 100 } }) }} /></Labelled>
            </>
          )}
        </div>
      </Piece>
    </>
  )
}

type SupplyProps = { supply: Supply; several: boolean; connected: boolean; onConnect: () => void; onChange: (next: Supply | null) => void }

function SupplyPart({ supply, several, connected, onConnect, onChange }: SupplyProps) {
  const without = FAMILIES.filter((family) => !supply.envelopes.some((one) => one.family === family))
  return (
    <Piece title={`On ${supply.name || 'a supply'}`} {...(several ? { onRemove: () => onChange(null) } : {})}>
      <div className="flex items-end gap-4 text-[13px]">
        <div className="w-44"><Labelled words="Supply"><TextField label="Name of the supply" value={supply.name} onChange={(name) => onChange({ ...supply, name: name ?? '' })} /></Labelled></div>
        {several && <label className="flex items-center gap-1.5 pb-1"><input type="radio" checked={connected} onChange={onConnect} /> connected to this one</label>}
      </div>
      {supply.envelopes.map((one, index) => (
        <EnvelopePart key={one.family} one={one} onChange={(next) => onChange({ ...supply, envelopes: changed(supply.envelopes, index, next) })} />
      ))}
      {without.length > 0 && (
        <p className="mt-1 flex gap-3 text-[13px]">
          <span className="text-steel2">it also does</span>
          {without.map((family) => (
            <button key={family} type="button" className="link" onClick={() => onChange({ ...supply, envelopes: [...supply.envelopes, { family, current_a: { min: 20, max: 200 }, duty: [] }] })}>{FAMILY_WORDS[family]}</button>
          ))}
        </p>
      )}
    </Piece>
  )
}

function EnvelopePart({ one, onChange }: { one: Envelope; onChange: (next: Envelope | null) => void }) {
  const set = (changes: Partial<Envelope>) => onChange({ ...one, ...changes })
  const [half, setHalf] = useState<{ current_a: number | null; percent: number | null }>({ current_a: null, percent: null })
  const putHalf = (changes: Partial<typeof half>) => {
    const next = { ...half, ...changes }
    if (next.current_a !== null && next.percent) {
      set({ duty: [...one.duty, { current_a: next.current_a, percent: next.percent }] })
      setHalf({ current_a: null, percent: null })
    } else setHalf(next)
  }
  const words = FAMILY_WORDS[one.family] ?? one.family
  return (
    <Piece title={words} onRemove={() => onChange(null)}>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words="Current"><QuantityField mode="range" label={`Current, ${words}`} kind="current" value={one.current_a} onChange={(range) => { if (range) set({ current_a: range }) }} /></Labelled>
        <Labelled words="Volts"><QuantityField mode="range" label={`Volts, ${words}`} kind="voltage" value={one.voltage_v} onChange={(voltage_v) => set({ voltage_v })} /></Labelled>
        {one.family === 'wire' && <Labelled words="Wire feed"><QuantityField mode="range" label={`Wire feed, ${words}`} kind="wire_feed" value={one.wire_feed_m_min} onChange={(wire_feed_m_min) => set({ wire_feed_m_min })} /></Labelled>}
      </div>
      <p className="label mt-2">Duty cycle, of ten minutes</p>
      <div className="flex flex-wrap items-start gap-x-4 gap-y-1 text-[13px]">
        {one.duty.map((point, index) => (
          <span key={index} className="tabular-nums">
            {point.percent} % at {point.current_a} A <button type="button" className="link text-[12px]" aria-label={`Remove ${String(point.percent)} % at ${String(point.current_a)} A`} onClick={() => set({ duty: changed(one.duty, index, null) })}>remove</button>
          </span>
        ))}
        <span className="grid w-64 grid-cols-2 gap-2">
          <QuantityField key={`p${String(one.duty.length)}`} label={`Duty share, ${words}`} kind="percent" placeholder="60 %" hideUnit value={half.percent} onChange={(percent) => putHalf({ percent })} />
          <QuantityField key={`a${String(one.duty.length)}`} label={`Duty current, ${words}`} kind="current" placeholder="at … A" hideUnit value={half.current_a} onChange={(current_a) => putHalf({ current_a })} />
        </span>
      </div>
    </Piece>
  )
}
