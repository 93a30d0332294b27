import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { DialCalibration, Pass, PassResult } from '../../api/types'
import { useUnits } from '../../session/units'
import { temper } from '../../domain/temper'
import { Choice } from '../../ui/Choice'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { MarkIcon, markOf } from '../../ui/Verdict'
import type { Entry } from './model'
import { Small, Computed, Gauge } from './Gauge'

type Props = {
  entry: Entry
  put: (step: (before: Entry) => Entry) => void
  planned: Pass | null
  result: PassResult | null
  judged: boolean
  /** Heat input reckoned here while nothing can be asked. */
  mirrored: number | null
  /** Filler batches at this booth. */
  batches: readonly string[]
  /** The wire feed dial of the machine at the booth. */
  feedDial?: DialCalibration | null
  disabled: boolean
}

/** The fields of the pass being welded, large, each with its band. */
export function EntryPanel({ entry, put, planned, result, judged, mirrored, batches, feedDial, disabled }: Props) {
  const units = useUnits()
  const travel = result?.travel_mm_min ?? null
  const heat = mirrored ?? result?.heat_input_kj_mm ?? null
  const set = (changes: Partial<Entry>) => put((before) => ({ ...before, ...changes }))
  const breaches = result?.findings.filter((one) => one.verdict === 'violates') ?? []
  const out = (rule: string) => breaches.some((one) => one.rule === rule)
  return (
    <section aria-label={t`Pass`} className="panel px-4 py-2">
      <Line words={t`Length`}>
        <QuantityField
          booth
          big
          label={t`Length`}
          kind="length"
          value={entry.lengthMm}
          disabled={disabled}
          onChange={(lengthMm) => set({ lengthMm })}
        />
        <div className="flex gap-2">
          {[-5, 5].map((step) => (
            <button
              type="button"
              key={step}
              className="size-12 rounded-sm border border-line font-head text-[17px] font-semibold"
              disabled={disabled || entry.lengthMm === null}
              onClick={() => put((before) => ({ ...before, lengthMm: Math.max((before.lengthMm ?? 0) + step, 1) }))}
            >
              {step > 0 ? `+${String(step)}` : `−${String(-step)}`}
            </button>
          ))}
          {[150, 300].map((length) => (
            <button
              type="button"
              key={length}
              className="h-12 min-w-14 rounded-sm border border-line px-2 font-head text-[17px] font-semibold"
              disabled={disabled}
              onClick={() => set({ lengthMm: length })}
            >
              {units.value(length, 'length')}
            </button>
          ))}
        </div>
      </Line>
      <Line words={t`Arc time`}>
        <QuantityField
          booth
          big
          label={t`Arc time, typed`}
          kind="time"
          value={entry.timeS}
          disabled={disabled}
          placeholder={t`stopwatch`}
          onChange={(timeS) => set({ timeS })}
        />
        <span className="text-[13px] text-steel2">
          <Trans>Typed time overrides the stopwatch</Trans>
        </span>
      </Line>
      <Line words={t`Current`}>
        <QuantityField
          booth
          big
          mode="range"
          label={t`Current`}
          kind="current"
          value={entry.current}
          disabled={disabled}
          onChange={(current) => set({ current })}
        />
        <Gauge
          kind="current"
          allowed={planned?.current_a}
          seen={entry.current}
          out={out('current.range')}
          words={t`Current`}
        />
      </Line>
      <Line words={t`Voltage`}>
        <QuantityField
          booth
          big
          mode="range"
          label={t`Voltage`}
          kind="voltage"
          value={entry.voltage}
          disabled={disabled}
          onChange={(voltage) => set({ voltage })}
        />
        <Gauge
          kind="voltage"
          allowed={planned?.voltage_v}
          seen={entry.voltage}
          out={out('voltage.range')}
          words={t`Voltage`}
        />
      </Line>
      {planned?.wire_feed_m_min && (
        <Line words={t`Wire feed`}>
          <QuantityField
            booth
            big
            mode="range"
            label={t`Wire feed`}
            kind="wire_feed"
            feedDial={feedDial}
            placeholder={feedDial ? t`or dial 4.5` : t`or 640 mm in 6 s`}
            value={entry.feed}
            disabled={disabled}
            onChange={(feed) => set({ feed })}
          />
          <Gauge
            kind="wire_feed"
            allowed={planned.wire_feed_m_min}
            seen={entry.feed}
            out={out('wire-feed.range')}
            words={t`Wire feed`}
          />
        </Line>
      )}
      <Line words={t`Before the pass`}>
        <QuantityField
          booth
          big
          label={t`Temperature before the pass`}
          kind="temperature"
          value={entry.beforeC}
          disabled={disabled}
          onChange={(beforeC) => set({ beforeC, readAt: beforeC === null ? null : clockNow() })}
        />
        <label className="flex min-h-12 items-center gap-2 text-[14px]">
          <input
            type="checkbox"
            className="size-5"
            checked={entry.quenched}
            disabled={disabled}
            onChange={(event) => set({ quenched: event.target.checked })}
          />
          <Trans>quenched in water before it</Trans>
        </label>
      </Line>
      <Line words={t`Travel`}>
        <Computed value={travel} kind="travel" out={out('travel.range')} />
        <Gauge
          kind="travel"
          allowed={planned?.travel_mm_min}
          seen={travel === null ? null : { min: travel, max: travel }}
          out={out('travel.range')}
          words={t`Travel`}
        />
      </Line>
      <Line words={t`Heat input`}>
        <Computed value={heat} kind="heat_input" out={out('heat-input.range')} />
        <Gauge
          kind="heat_input"
          allowed={result?.planned_heat_kj_mm}
          seen={heat === null ? null : { min: heat, max: heat }}
          out={out('heat-input.range')}
          words={t`Heat input`}
          colour={temper(heat)}
        />
      </Line>
      <details
        className="border-b border-hair"
        open={
          entry.flow !== null ||
          entry.depositMm !== null ||
          entry.layer !== null ||
          entry.runOutMm !== null ||
          entry.batch !== null
        }
      >
        <summary className="flex min-h-12 cursor-pointer items-center text-[15px] text-steel">
          <Trans>Gas, layer, batch and more</Trans>
        </summary>
        <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-4 gap-y-2 pb-2">
          {planned?.gas && (
            <Small words={t`Gas flow`}>
              <QuantityField
                booth
                mode="range"
                label={t`Gas flow`}
                kind="flow"
                value={entry.flow}
                disabled={disabled}
                onChange={(flow) => set({ flow })}
              />
            </Small>
          )}
          {planned?.process === '111' && (
            <Small words={t`Bead from one electrode`}>
              <QuantityField
                booth
                label={t`Run-out length per electrode`}
                kind="length"
                value={entry.runOutMm}
                disabled={disabled}
                onChange={(runOutMm) => set({ runOutMm })}
              />
            </Small>
          )}
          <Small words={t`Deposit thickness`}>
            <QuantityField
              booth
              label={t`Deposit thickness`}
              kind="gap"
              value={entry.depositMm}
              disabled={disabled}
              onChange={(depositMm) => set({ depositMm })}
            />
          </Small>
          <Small words={t`Layer`}>
            <input
              className="field"
              aria-label={t`Layer`}
              inputMode="numeric"
              disabled={disabled}
              value={entry.layer ?? ''}
              onChange={(event) =>
                set({ layer: /^[1-9]\d{0,2}$/.test(event.target.value) ? Number(event.target.value) : null })
              }
            />
          </Small>
          <Small words={t`Filler batch`}>
            {batches.length > 0 ? (
              <Choice
                label={t`Filler batch`}
                value={entry.batch}
                none={t`as recorded`}
                options={batches.map((one) => [one, one] as const)}
                disabled={disabled}
                onChange={(batch) => set({ batch })}
              />
            ) : (
              <TextField
                label={t`Filler batch`}
                value={entry.batch}
                disabled={disabled}
                onChange={(batch) => set({ batch })}
              />
            )}
          </Small>
          <Small words={t`Temperature read at`}>
            <TextField
              label={t`Temperature read at`}
              placeholder={t`such as 75 mm beside`}
              value={entry.place}
              disabled={disabled}
              onChange={(place) => set({ place })}
            />
          </Small>
        </div>
      </details>
      <Line words={t`Remarks`} last>
        <div className="col-span-2">
          <TextField
            label={t`Remarks`}
            rows={1}
            value={entry.remarks}
            disabled={disabled}
            onChange={(remarks) => set({ remarks })}
          />
        </div>
      </Line>
      {!judged && (
        <p role="status" className="pb-2 text-[14px] text-steel2">
          <Trans>Saved here, judged when connected.</Trans>
          {mirrored !== null && t` The heat input is V·I·t/L, reckoned on this device.`}
        </p>
      )}
      <div aria-live="assertive">
        {breaches.map((one, index) => (
          <p key={index} className="my-2 flex items-start gap-2 rounded-sm border border-breach px-3 py-2 text-[15px]">
            <span className="mt-1">
              <MarkIcon mark={markOf(one)} />
            </span>
            <span>
              <b className="text-breach">{one.title}.</b> {one.message} {one.remedy}
            </span>
          </p>
        ))}
      </div>
    </section>
  )
}

/** The time of day on this device, for the reading. */
function clockNow(): string {
  return new Date().toTimeString().slice(0, 5)
}

function Line({ words, children, last = false }: { words: string; children: React.ReactNode; last?: boolean }) {
  return (
    <div
      className={`grid grid-cols-[112px_minmax(0,210px)_minmax(0,1fr)] items-center gap-4 py-1 max-sm:grid-cols-[96px_minmax(0,1fr)] max-sm:gap-x-2 max-sm:gap-y-1 max-sm:[&>*:nth-child(3)]:col-span-2 ${last ? '' : 'border-b border-hair'}`}
    >
      <span className="text-[15px] text-steel">{words}</span>
      {children}
    </div>
  )
}
