import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState, type Dispatch, type SetStateAction } from 'react'

import { api, unwrap } from '../../api/client'
import type { PassMeasured, Recording } from '../../api/types'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { QuantityField } from '../../ui/QuantityField'
import { commitAndSubmit, showWrong } from '../../ui/commit'
import { MarkIcon } from '../../ui/Verdict'
import type { Part } from './model'
import type { Span } from '../../queries/recordings'
import { fixed } from '../../session/language'

const FORM = 'recorded-passes'

type Props = {
  recording: Recording
  parts: Part[]
  onParts: Dispatch<SetStateAction<Part[]>>
  onZoom: (span: Span) => void
  disabled: boolean
}

/** The passes of a recording: a person says which is which, and writes them into the log. */
export function Parts({ recording, parts, onParts, onZoom, disabled }: Props) {
  const units = useUnits()
  const queries = useQueryClient()
  const [written, setWritten] = useState(false)
  const chosen = parts.filter((one) => one.number !== null)
  const take = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/recordings/{recording_id}/passes', {
          params: { path: { recording_id: recording.id } },
          body: {
            parts: chosen.map((one) => ({
              number: one.number ?? 1,
              start_s: one.start_s,
              end_s: one.end_s,
              length_mm: one.length_mm,
            })),
          },
        }),
      ),
    onSuccess: async () => {
      setWritten(true)
      await queries.invalidateQueries({ queryKey: ['recording', recording.id] })
      void queries.invalidateQueries({ queryKey: ['coupon'] })
      void queries.invalidateQueries({ queryKey: ['recordings'] })
    },
  })
  const change = (at: number, changes: Partial<Part>) => {
    setWritten(false)
    onParts((before) => before.map((one, index) => (index === at ? { ...one, ...changes } : one)))
  }
  const join = (at: number) => {
    setWritten(false)
    const [first, second] = [parts[at - 1], parts[at]]
    if (first && second) onParts([...parts.slice(0, at - 1), { ...first, end_s: second.end_s }, ...parts.slice(at + 1)])
  }
  return (
    <section aria-label={t`Passes found`} className="panel p-3">
      <form
        id={FORM}
        onSubmit={(event) => {
          event.preventDefault()
          if (!showWrong(event.currentTarget)) take.mutate()
        }}
      >
        <h2 className="mb-1 text-[16px]">
          <Trans>Passes found</Trans>
        </h2>
        <div className="overflow-x-auto">
          <table className="w-full text-[13px] tabular-nums">
            <thead className="label text-left">
              <tr className="border-b border-line">
                <th className="py-1 font-medium">
                  <Trans>Pass no.</Trans>
                </th>
                <th className="font-medium">
                  <Trans>From, s</Trans>
                </th>
                <th className="font-medium">
                  <Trans>To, s</Trans>
                </th>
                <th className="font-medium">
                  <Trans>Bead length</Trans>
                </th>
                <th className="font-medium">
                  <Trans>Arc, s</Trans>
                </th>
                <th className="font-medium">V</th>
                <th className="font-medium">A</th>
                <th className="font-medium">
                  <Trans>Energy, kJ</Trans>
                </th>
                <th className="font-medium" title={t`What mean volts times mean amps would have made of it`}>
                  <Trans>difference V·I to true power</Trans>
                </th>
                <th className="font-medium">
                  <Trans>Arc type</Trans>
                </th>
                <th />
              </tr>
            </thead>
            <tbody>
              {parts.map((one, at) => {
                const got = one.found.measured
                return (
                  <tr key={`${String(one.start_s)}-${String(at)}`} className="border-b border-hair">
                    <td className="py-1">
                      <input
                        className="field w-14!"
                        aria-label={t`Pass number of part ${at + 1}`}
                        inputMode="numeric"
                        placeholder={t`none`}
                        disabled={disabled}
                        value={one.number ?? ''}
                        onChange={(event) =>
                          change(at, {
                            number: /^[1-9]\d{0,2}$/.test(event.target.value) ? Number(event.target.value) : null,
                          })
                        }
                      />
                    </td>
                    <td>
                      <Time
                        label={t`Part ${at + 1} from`}
                        value={one.start_s}
                        disabled={disabled}
                        onChange={(start_s) => change(at, { start_s })}
                      />
                    </td>
                    <td>
                      <Time
                        label={t`Part ${at + 1} to`}
                        value={one.end_s}
                        disabled={disabled}
                        onChange={(end_s) => change(at, { end_s })}
                      />
                    </td>
                    <td className="w-28 pr-2">
                      <QuantityField
                        label={t`Bead length of part ${at + 1}`}
                        kind="length"
                        floating
                        value={one.length_mm}
                        disabled={disabled}
                        onChange={(length_mm) => change(at, { length_mm })}
                      />
                    </td>
                    <td>
                      {fixed(got.arc_time_s, 1)}
                      {one.found.stretches_s.length > 1 && (
                        <span className="text-steel2">
                          {' '}
                          <Trans>in {one.found.stretches_s.length}</Trans>
                        </span>
                      )}
                    </td>
                    <td>{units.value(got.mean_voltage_v, 'voltage')}</td>
                    <td>{units.value(got.mean_current_a, 'current')}</td>
                    <td className="font-semibold">{fixed(got.energy_j / 1000, 2)}</td>
                    <td>{percentOff(got.mean_product_error)}</td>
                    <td>{lookOf(one.found)}</td>
                    <td className="text-right whitespace-nowrap">
                      <button
                        type="button"
                        className="link p-1"
                        onClick={() => onZoom({ start_s: one.start_s - 1, end_s: one.end_s + 1 })}
                      >
                        <Trans>look</Trans>
                      </button>
                      {at > 0 && !disabled && (
                        <button type="button" className="link p-1" onClick={() => join(at)}>
                          <Trans>join to the one above</Trans>
                        </button>
                      )}
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
        </div>
        {!disabled && (
          <div className="mt-2 flex items-center gap-3">
            <Button look="main" disabled={chosen.length === 0 || take.isPending} onClick={() => commitAndSubmit(FORM)}>
              {take.isPending
                ? t`Writing …`
                : plural(chosen.length, {
                    one: `Write pass ${chosen.map((one) => one.number).join(', ')} into the log`,
                    other: `Write passes ${chosen.map((one) => one.number).join(', ')} into the log`,
                  })}
            </Button>
            {written && (
              <span role="status">
                <MarkIcon mark="holds" /> <Trans>Written, with the energy by integration.</Trans>
              </span>
            )}
            {take.isError && (
              <span role="alert" className="text-breach">
                {take.error.message}
              </span>
            )}
          </div>
        )}
      </form>
    </section>
  )
}

/** How far off, with its sign; what rounds to nothing has none. */
function percentOff(share: number): string {
  const text = fixed(share * 100, 1)
  if (Number(text) === 0) return '0.0 %'
  return `${share > 0 ? '+' : ''}${text} %`
}

function Time({
  label,
  value,
  disabled,
  onChange,
}: {
  label: string
  value: number
  disabled: boolean
  onChange: (value: number) => void
}) {
  const [text, setText] = useState<string | null>(null)
  return (
    <input
      className="field w-20!"
      aria-label={label}
      inputMode="decimal"
      disabled={disabled}
      value={text ?? fixed(value, 2)}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        const typed = Number((text ?? '').replace(',', '.'))
        if (text !== null && text.trim() !== '' && Number.isFinite(typed)) onChange(typed)
        setText(null)
      }}
    />
  )
}

function lookOf({ waveform: wave }: PassMeasured): string {
  if (wave.shape === 'short-circuit') return t`short circuits, ${fixed(wave.short_circuits_hz ?? 0, 0)} a second`
  if (wave.shape === 'pulsed')
    return t`pulsed ${fixed(wave.pulse_hz ?? 0, 1)} Hz, ${fixed(wave.peak_a ?? 0, 0)}/${fixed(wave.background_a ?? 0, 0)} A, ${fixed((wave.peak_share ?? 0) * 100, 0)} % peak`
  if (wave.shape === 'alternating')
    return wave.ac_hz
      ? t`AC ${fixed(wave.ac_hz, 0)} Hz, ${fixed((wave.negative_share ?? 0) * 100, 0)} % negative`
      : 'AC'
  return wave.note || t`steady`
}
