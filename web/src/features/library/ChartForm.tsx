import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { SettingsChart } from '../../api/types'
import { useUsage } from '../../session/terms'
import { POLARITIES, POSITIONS, processOptions } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { FillerHint } from '../../ui/FillerHint'
import { Piece, changed, without, type FormProps } from './FormParts'

type Position = SettingsChart['rows'][number]['positions'][number]

/** A printed chart of settings: where it stands, what it is for, and its lines. */
export function ChartForm({ document, put, errors }: FormProps<SettingsChart>) {
  const rows = document.rows
  const usage = useUsage(null)
  return (
    <>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words={t`Name of the chart`} wide>
          <TextField
            label={t`Name of the chart`}
            value={document.name}
            onChange={(name) => put({ name: name ?? '' })}
            error={errors.get('name')}
            placeholder={t`Door of feeder 3`}
          />
        </Labelled>
        <Labelled words={t`Printed by`}>
          <TextField
            label={t`Printed by`}
            value={document.source}
            onChange={(source) => put({ source })}
            error={errors.get('source')}
          />
        </Labelled>
        <Labelled words={t`Page`}>
          <TextField
            label={t`Page`}
            value={document.page}
            onChange={(page) => put({ page })}
            error={errors.get('page')}
          />
        </Labelled>
        <Labelled words={t`Process`}>
          <Choice
            label={t`Process`}
            value={document.process}
            options={processOptions(usage)}
            onChange={(process) => {
              if (process) put({ process: process as SettingsChart['process'] })
            }}
          />
        </Labelled>
        <Labelled words={t`Filler class`}>
          <TextField
            label={t`Filler class`}
            value={document.designation}
            onChange={(designation) => put({ designation })}
            error={errors.get('designation')}
            placeholder="E71T-1C"
          />
          {document.designation && (
            <FillerHint
              designation={document.designation}
              disabled={false}
              onTake={(designation) => put({ designation })}
            />
          )}
        </Labelled>
        <Labelled words={t`Gas`}>
          <TextField
            label={t`Gas`}
            value={document.gas}
            onChange={(gas) => put({ gas })}
            error={errors.get('gas')}
            placeholder={t`CO2, 75/25 …`}
          />
        </Labelled>
        <Labelled words={t`Polarity`}>
          <Choice
            label={t`Polarity`}
            value={document.polarity ?? null}
            none={t`not on the chart`}
            options={POLARITIES}
            onChange={(polarity) => put({ polarity: polarity as SettingsChart['polarity'] })}
          />
        </Labelled>
        <Labelled words={t`Date printed`}>
          <TextField
            label={t`Date printed`}
            value={document.printed_on}
            onChange={(printed_on) => put({ printed_on })}
            error={errors.get('printed_on')}
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
        <Trans>Lines</Trans>
      </h3>
      {errors.get('rows') && (
        <p role="alert" className="text-[13px] text-breach">
          {errors.get('rows')}
        </p>
      )}
      {rows.map((row, index) => {
        const set = (changes: Partial<typeof row>) =>
          put((before) => ({ rows: changed(before.rows, index, (one) => ({ ...one, ...changes })) }))
        const of = `line ${String(index + 1)}`
        const error = errors.get(`rows.${String(index)}`)
        return (
          <Piece
            key={index}
            title={t`Line ${index + 1}`}
            {...(rows.length > 1 ? { onRemove: () => put((before) => ({ rows: without(before.rows, index) })) } : {})}
          >
            <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
              <Labelled words={t`Diameter`}>
                <QuantityField
                  label={t`Diameter, ${of}`}
                  kind="wire_diameter"
                  value={row.diameter_mm}
                  onChange={(value) => {
                    if (value !== null) set({ diameter_mm: value })
                  }}
                />
              </Labelled>
              <Labelled words={t`Positions, with commas`}>
                <TextField
                  label={t`Positions, ${of}`}
                  value={row.positions.join(', ')}
                  placeholder={t`not on the chart`}
                  onChange={(text) =>
                    set({
                      positions: (text ?? '')
                        .split(/[\s,]+/)
                        .map((one) => one.toUpperCase())
                        .filter((one) => POSITIONS.some(([key]) => key === one)) as Position[],
                    })
                  }
                />
              </Labelled>
              <Labelled words={t`Thickness`}>
                <QuantityField
                  mode="range"
                  label={t`Thickness, ${of}`}
                  kind="thickness"
                  value={row.thickness_mm}
                  onChange={(thickness_mm) => set({ thickness_mm })}
                />
              </Labelled>
              <Labelled words={t`Current`}>
                <QuantityField
                  mode="range"
                  label={t`Current, ${of}`}
                  kind="current"
                  value={row.current_a}
                  onChange={(current_a) => set({ current_a })}
                />
              </Labelled>
              <Labelled words={t`Volts`}>
                <QuantityField
                  mode="range"
                  label={t`Volts, ${of}`}
                  kind="voltage"
                  value={row.voltage_v}
                  onChange={(voltage_v) => set({ voltage_v })}
                />
              </Labelled>
              <Labelled words={t`Wire feed`}>
                <QuantityField
                  mode="range"
                  label={t`Wire feed, ${of}`}
                  kind="wire_feed"
                  value={row.wire_feed_m_min}
                  onChange={(wire_feed_m_min) => set({ wire_feed_m_min })}
                />
              </Labelled>
            </div>
            {error && (
              <p role="alert" className="mt-1 text-[13px] text-breach">
                {error}
              </p>
            )}
          </Piece>
        )
      })}
      <button
        type="button"
        className="link mt-2 text-[13px]"
        onClick={() =>
          put((before) => ({
            rows: [...before.rows, { ...(before.rows.at(-1) ?? { diameter_mm: 1.2, positions: [] }) }],
          }))
        }
      >
        <Trans>Add a line like the last</Trans>
      </button>
    </>
  )
}
