import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { Product } from '../../api/types'
import { POLARITIES, POSITIONS } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { FillerHint } from '../../ui/FillerHint'
import { Piece, changed, without, type FormProps } from './FormParts'

/** A filler as bought: its class, and the ranges of its maker's sheet by diameter and position. */
export function ProductForm({ document, put, errors }: FormProps<Product>) {
  const ranges = document.ranges
  const [adding, setAdding] = useState(false)
  return (
    <>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words={t`Name, as on the box`} wide>
          <TextField
            label={t`Name of the filler`}
            value={document.name}
            onChange={(name) => put({ name: name ?? '' })}
            error={errors.get('name')}
          />
        </Labelled>
        <Labelled words={t`Class`} wide>
          <TextField
            label={t`Class`}
            value={document.designation}
            onChange={(designation) => put({ designation: designation ?? '' })}
            error={errors.get('designation')}
            placeholder="E71T-1M"
          />
          {document.designation && (
            <FillerHint
              designation={document.designation}
              disabled={false}
              onTake={(designation) => put({ designation })}
            />
          )}
        </Labelled>
        <Labelled words={t`Date of the sheet`}>
          <TextField
            label={t`Date of the sheet`}
            value={document.sheet_date}
            onChange={(sheet_date) => put({ sheet_date })}
            error={errors.get('sheet_date')}
            placeholder="2026-03-31"
          />
        </Labelled>
        <div className="col-span-3">
          <Labelled words={t`Notes`}>
            <TextField label={t`Notes`} value={document.notes} onChange={(notes) => put({ notes })} />
          </Labelled>
        </div>
      </div>
      <h3 className="mt-3 text-[15px]">
        <Trans>Ranges of the sheet</Trans>
      </h3>
      {ranges.map((range, index) => {
        const set = (changes: Partial<typeof range>) =>
          put((before) => ({ ranges: changed(before.ranges, index, (one) => ({ ...one, ...changes })) }))
        return (
          <Piece
            key={index}
            title={t`Range ${index + 1}`}
            onRemove={() => put((before) => ({ ranges: without(before.ranges, index) }))}
          >
            <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
              <Labelled words={t`Diameter`}>
                <QuantityField
                  label={t`Diameter, range ${index + 1}`}
                  kind="wire_diameter"
                  value={range.diameter_mm}
                  onChange={(value) => {
                    if (value !== null) set({ diameter_mm: value })
                  }}
                />
              </Labelled>
              <Labelled words={t`Positions, with commas`}>
                <TextField
                  label={t`Positions, range ${index + 1}`}
                  value={range.positions.join(', ')}
                  placeholder={t`any`}
                  onChange={(text) =>
                    set({
                      positions: (text ?? '')
                        .split(/[\s,]+/)
                        .filter((one) => POSITIONS.some(([key]) => key === one.toUpperCase()))
                        .map((one) => one.toUpperCase()) as typeof range.positions,
                    })
                  }
                />
              </Labelled>
              <Labelled words={t`Polarity`}>
                <Choice
                  label={t`Polarity, range ${index + 1}`}
                  value={range.polarity}
                  none={t`as the class`}
                  options={POLARITIES}
                  onChange={(polarity) => set({ polarity })}
                />
              </Labelled>
              <Labelled words={t`Current`}>
                <QuantityField
                  mode="range"
                  label={t`Current, range ${index + 1}`}
                  kind="current"
                  value={range.current_a}
                  onChange={(current_a) => set({ current_a })}
                />
              </Labelled>
              <Labelled words={t`Volts`}>
                <QuantityField
                  mode="range"
                  label={t`Volts, range ${index + 1}`}
                  kind="voltage"
                  value={range.voltage_v}
                  onChange={(voltage_v) => set({ voltage_v })}
                />
              </Labelled>
              <Labelled words={t`Wire feed`}>
                <QuantityField
                  mode="range"
                  label={t`Wire feed, range ${index + 1}`}
                  kind="wire_feed"
                  value={range.wire_feed_m_min}
                  onChange={(wire_feed_m_min) => set({ wire_feed_m_min })}
                />
              </Labelled>
              <Labelled words={t`Tip to work`}>
                <QuantityField
                  mode="range"
                  label={t`Tip to work, range ${index + 1}`}
                  kind="gap"
                  value={range.extension_mm}
                  onChange={(extension_mm) => set({ extension_mm })}
                />
              </Labelled>
            </div>
          </Piece>
        )
      })}
      {adding ? (
        <div className="mt-2 w-44 text-[13px]">
          <Labelled words={t`Diameter of the new range`}>
            <QuantityField
              label={t`Diameter of the new range`}
              kind="wire_diameter"
              value={null}
              onChange={(diameter_mm) => {
                if (diameter_mm !== null) {
                  put((before) => ({ ranges: [...before.ranges, { diameter_mm, positions: [] }] }))
                  setAdding(false)
                }
              }}
            />
          </Labelled>
        </div>
      ) : (
        <button type="button" className="link mt-2 text-[13px]" onClick={() => setAdding(true)}>
          <Trans>Add a range</Trans>
        </button>
      )}
    </>
  )
}
