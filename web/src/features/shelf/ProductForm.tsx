import { useState } from 'react'

import type { Product } from '../../api/types'
import { POLARITIES, POSITIONS } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { FillerHint } from '../procedures'
import { Piece, changed, without, type FormProps } from './FormParts'

/** A filler as bought: its class, and the ranges of its maker's sheet by diameter and position. */
export function ProductForm({ document, put, errors }: FormProps<Product>) {
  const ranges = document.ranges
  const [adding, setAdding] = useState(false)
  return (
    <>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words="Name, as on the box" wide><TextField label="Name of the filler" value={document.name} onChange={(name) => put({ name: name ?? '' })} error={errors.get('name')} /></Labelled>
        <Labelled words="Class" wide>
          <TextField label="Class" value={document.designation} onChange={(designation) => put({ designation: designation ?? '' })} error={errors.get('designation')} placeholder="E71T-1M" />
          {document.designation && <FillerHint designation={document.designation} disabled={false} onTake={(designation) => put({ designation })} />}
        </Labelled>
        <Labelled words="Date of the sheet"><TextField label="Date of the sheet" value={document.sheet_date} onChange={(sheet_date) => put({ sheet_date })} error={errors.get('sheet_date')} placeholder="2026-03-31" /></Labelled>
        <div className="col-span-3"><Labelled words="Notes"><TextField label="Notes" value={document.notes} onChange={(notes) => put({ notes })} /></Labelled></div>
      </div>
      <h3 className="mt-3 text-[15px]">Ranges of the sheet</h3>
      {ranges.map((range, index) => {
        const set = (changes: Partial<typeof range>) => put((before) => ({ ranges: changed(before.ranges, index, (one) => ({ ...one, ...changes })) }))
        return (
          <Piece key={index} title={`Range ${String(index + 1)}`} onRemove={() => put((before) => ({ ranges: without(before.ranges, index) }))}>
            <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
              <Labelled words="Diameter"><QuantityField label={`Diameter, range ${String(index + 1)}`} kind="wire_diameter" value={range.diameter_mm} onChange={(value) => { if (value !== null) set({ diameter_mm: value }) }} /></Labelled>
              <Labelled words="Positions, with commas">
                <TextField label={`Positions, range ${String(index + 1)}`} value={range.positions.join(', ')} placeholder="any"
                  onChange={(text) => set({ positions: (text ?? '').split(/[\s,]+/).filter((one) => POSITIONS.some(([key]) => key === one.toUpperCase())).map((one) => one.toUpperCase()) as typeof range.positions })} />
              </Labelled>
              <Labelled words="Polarity"><Choice label={`Polarity, range ${String(index + 1)}`} value={range.polarity} none="as the class" options={POLARITIES} onChange={(polarity) => set({ polarity })} /></Labelled>
              <Labelled words="Current"><QuantityField mode="range" label={`Current, range ${String(index + 1)}`} kind="current" value={range.current_a} onChange={(current_a) => set({ current_a })} /></Labelled>
              <Labelled words="Volts"><QuantityField mode="range" label={`Volts, range ${String(index + 1)}`} kind="voltage" value={range.voltage_v} onChange={(voltage_v) => set({ voltage_v })} /></Labelled>
              <Labelled words="Wire feed"><QuantityField mode="range" label={`Wire feed, range ${String(index + 1)}`} kind="wire_feed" value={range.wire_feed_m_min} onChange={(wire_feed_m_min) => set({ wire_feed_m_min })} /></Labelled>
              <Labelled words="Tip to work"><QuantityField mode="range" label={`Tip to work, range ${String(index + 1)}`} kind="gap" value={range.extension_mm} onChange={(extension_mm) => set({ extension_mm })} /></Labelled>
            </div>
          </Piece>
        )
      })}
      {adding ? (
        <div className="mt-2 w-44 text-[13px]">
          <Labelled words="Diameter of the new range">
            <QuantityField label="Diameter of the new range" kind="wire_diameter" value={null} onChange={(diameter_mm) => { if (diameter_mm !== null) { put((before) => ({ ranges: [...before.ranges, { diameter_mm, positions: [] }] })); setAdding(false) } }} />
          </Labelled>
        </div>
      ) : (
        <button type="button" className="link mt-2 text-[13px]" onClick={() => setAdding(true)}>Add a range</button>
      )}
    </>
  )
}
