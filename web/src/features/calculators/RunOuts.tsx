import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'

import type { DialCalibration } from '../../api/types'
import { useUnits } from '../../session/units'
import { QuantityField } from '../../ui/QuantityField'
import { useSettled } from '../../ui/useSettled'
import { dialQuery } from '../../queries/calculators'
import { fixed } from '../../session/language'

export type Row = { setting: number | null; length_mm: number | null; time_s: number | null }
export const EMPTY_ROW: Row = { setting: null, length_mm: null, time_s: 6 }

/** The rows that are whole, as a calibration. */
export function dialOf(rows: readonly Row[]): DialCalibration {
  return {
    points: rows.flatMap((one) =>
      one.setting === null || one.length_mm === null || one.time_s === null
        ? []
        : [{ setting: one.setting, length_mm: one.length_mm, time_s: one.time_s }],
    ),
  }
}

type Props = {
  rows: readonly Row[]
  onChange: (change: (before: readonly Row[]) => Row[]) => void
  disabled?: boolean
  feed?: number | null
}

/** Wire run out at dial settings, the fitted curve, what it misses, and the setting for a feed. */
export function RunOuts({ rows, onChange, disabled = false, feed }: Props) {
  const units = useUnits()
  const asked = useSettled({ dial: dialOf(rows), feed: feed ?? null })
  const whole = asked.dial.points.length >= 2
  const found = useQuery({
    ...dialQuery({ dial: asked.dial, feed_m_min: null }),
    enabled: whole,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const setting = useQuery({
    ...dialQuery({ dial: asked.dial, feed_m_min: asked.feed }),
    enabled: whole && asked.feed !== null && !found.isError,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const put = (index: number, changes: Partial<Row>) =>
    onChange((before) => before.map((one, at) => (at === index ? { ...one, ...changes } : one)))
  const points = whole && !found.isError ? (found.data?.points ?? []) : []
  // Only whole rows were fitted; their answers go back to their own rows.
  const whole_ = rows.map((one, index) => (dialOf([one]).points.length > 0 ? index : -1)).filter((index) => index >= 0)
  const fitOf = (index: number) => points[whole_.indexOf(index)]
  const feedUnit = units.unit('wire_feed')
  return (
    <>
      <table className="w-full text-[13px]">
        <thead className="label text-left">
          <tr>
            {[t`Dial`, t`Wire run out`, 'in', t`Feed, ${feedUnit}`, t`Fitted`, t`Off by`, ''].map((words) => (
              <th key={words} className="px-1 py-0.5 font-medium">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="tabular-nums">
          {rows.map((one, index) => {
            const fit = fitOf(index)
            return (
              <tr key={index} className="align-top">
                <td className="w-16 p-0.5">
                  <QuantityField
                    label={t`Dial setting ${index + 1}`}
                    kind="number"
                    hideUnit
                    value={one.setting}
                    disabled={disabled}
                    onChange={(value) => put(index, { setting: value })}
                  />
                </td>
                <td className="w-36 p-0.5">
                  <QuantityField
                    label={t`Wire run out ${index + 1}`}
                    kind="length"
                    value={one.length_mm}
                    disabled={disabled}
                    onChange={(value) => put(index, { length_mm: value })}
                  />
                </td>
                <td className="w-24 p-0.5">
                  <QuantityField
                    label={t`Time of run-out ${index + 1}`}
                    kind="time"
                    value={one.time_s}
                    disabled={disabled}
                    onChange={(value) => put(index, { time_s: value })}
                  />
                </td>
                <td className="px-1 py-1">{fit ? units.value(fit.feed_m_min, 'wire_feed') : ''}</td>
                <td className="px-1 py-1">{fit ? units.value(fit.fitted_m_min, 'wire_feed') : ''}</td>
                <td className="px-1 py-1">
                  {fit ? units.value(found.data?.residuals_m_min[whole_.indexOf(index)] ?? 0, 'wire_feed') : ''}
                </td>
                <td className="py-1">
                  {!disabled && rows.length > 1 && (
                    <button
                      type="button"
                      className="link text-[12px]"
                      aria-label={t`Remove run-out ${index + 1}`}
                      onClick={() => onChange((before) => before.filter((_, at) => at !== index))}
                    >
                      <Trans>remove</Trans>
                    </button>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {!disabled && (
        <button
          type="button"
          className="link text-[13px]"
          onClick={() => onChange((before) => [...before, { ...EMPTY_ROW, time_s: before.at(-1)?.time_s ?? 6 }])}
        >
          <Trans>Add a setting</Trans>
        </button>
      )}
      {whole && found.isError && (
        <p role="alert" className="mt-1 text-[13px] text-breach">
          {found.error.message}
        </p>
      )}
      {!whole && (
        <p className="mt-1 text-[13px] text-steel2">
          <Trans>Run wire out at two settings or more; at five and more a bend of the dial is seen.</Trans>
        </p>
      )}
      {points.length > 0 && found.data && (
        <p className="mt-1 text-[13px] text-steel">
          {found.data.fit.coefficients.length === 2 ? t`Straight` : t`Bent`}{' '}
          <Trans>
            dial; the readings scatter by {units.value(found.data.fit.scatter_m_min, 'wire_feed')} {feedUnit}.
          </Trans>
        </p>
      )}
      {asked.feed !== null && whole && setting.isError && !found.isError && (
        <p role="alert" className="mt-1 text-[13px] text-breach">
          {setting.error.message}
        </p>
      )}
      {asked.feed !== null && whole && !setting.isError && setting.data?.setting != null && (
        <p role="status" className="mt-1 text-[15px]">
          <Trans>
            For {units.value(asked.feed, 'wire_feed')} {feedUnit} set the dial to{' '}
            <b className="text-[20px]">{fixed(setting.data.setting, 1)}</b>.
          </Trans>
        </p>
      )}
    </>
  )
}
