import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { Evaluation, ThermalView } from '../../api/types'
import { useUnits } from '../../session/units'
import { ticks } from '../../domain/rectangle'
import { temper } from '../../domain/temper'
import { Sources } from '../../ui/Sources'
import { fixed } from '../../session/language'

const WIDTH = 300
const HEIGHT = 220
const LEFT = 40
const BOTTOM = 32
const TOP = 12
const RIGHT = 12

/** Preheat by every method side by side, t8/5 and waits by pass, the window of heat input with the draft in it. */
export function CoolingPanel({ evaluation }: { evaluation: Evaluation }) {
  const units = useUnits()
  const { thermal } = evaluation
  if (!thermal)
    return (
      <p className="p-3 text-[13px] text-steel2">
        <Trans>Temperatures are judged once both metals are known and their thicknesses stated.</Trans>
      </p>
    )
  return (
    <div className="grid gap-5 text-[13px] min-[1180px]:grid-cols-2">
      <section aria-label={t`Preheat by method`}>
        <h3 className="text-[15px]">
          <Trans>Preheat by method</Trans>
        </h3>
        {thermal.preheat.length === 0 && (
          <p className="text-steel2">
            <Trans>No preheat method applies to these metals; what is usual for them stands in the checks.</Trans>
          </p>
        )}
        {thermal.preheat.map((one) => (
          <div key={one.method} className="border-t border-hair py-1.5">
            <p>
              <b>
                {one.preheat_c == null
                  ? t`none given`
                  : `${units.value(one.preheat_c, 'temperature')} ${units.unit('temperature')}`}
              </b>
              {one.none_needed && t` · none needed`} · {one.method_name}
            </p>
            <p className="text-steel2">{[...one.outside, ...one.assumptions].join('; ')}</p>
            <Sources citations={[one.citation]} />
          </div>
        ))}
        <h3 className="mt-3 text-[15px]">
          <Trans>Between the passes</Trans>
        </h3>
        <table className="w-full">
          <thead className="label text-left">
            <tr>
              <th className="font-medium">
                <Trans>Pass</Trans>
              </th>
              <th className="font-medium">t8/5, s</th>
              <th className="font-medium">
                <Trans>wait, about</Trans>
              </th>
            </tr>
          </thead>
          <tbody>
            {thermal.passes.map((one) => (
              <tr key={one.pass_number} className="border-t border-hair">
                <td className="py-0.5">{one.pass_number}</td>
                <td className="py-0.5">
                  {one.t85_least_s == null || one.t85_most_s == null
                    ? '—'
                    : `${fixed(one.t85_least_s, 1)}–${fixed(one.t85_most_s, 1)}`}
                </td>
                <td className="py-0.5">{one.wait_s == null ? '—' : waitWords(one.wait_s)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-1 text-[12px] text-steel2">
          <Trans>
            The wait is an estimate for a large plate in still air that starts at the preheat; the reading on the piece
            decides.
          </Trans>
        </p>
      </section>
      {thermal.window && <Window thermal={thermal} />}
      {thermal.tint.length > 0 && <Tints thermal={thermal} />}
    </div>
  )
}

/** What the colour beside the bead tells on stainless steel. */
function Tints({ thermal }: { thermal: ThermalView }) {
  const units = useUnits()
  const [first] = thermal.tint
  return (
    <section aria-label={t`Heat tint`}>
      <h3 className="text-[15px]">
        <Trans>Heat tint beside the bead, 304 in air</Trans>
      </h3>
      <table className="w-full">
        <tbody>
          {thermal.tint.map((one, index) => (
            <tr key={one.colour} className="border-t border-hair">
              <td className="w-7 py-0.5">
                <span className="block h-4 w-5 border border-line" style={{ backgroundColor: one.swatch }} />
              </td>
              <td className="py-0.5 pr-2">{one.colour}</td>
              <td className="py-0.5 pr-2 whitespace-nowrap">
                {index === 0 ? t`under` : index === thermal.tint.length - 1 ? t`over` : t`about`}{' '}
                {units.value(one.to_c, 'temperature')} {units.unit('temperature')}
              </td>
              <td className="py-0.5 text-steel2">{one.view}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[12px] text-steel2">
        <Trans>
          The colour marks the peak at that line, not the weld. Time, finish, grade and oxygen move it; the buyer sets
          what is accepted.
        </Trans>
      </p>
      {first && <Sources citations={[first.citation]} />}
    </section>
  )
}

function waitWords(seconds: number): string {
  return seconds < 90 ? `${fixed(seconds, 0)} s` : t`${fixed(seconds / 60, 1)} min`
}

function Window({ thermal }: { thermal: ThermalView }) {
  const units = useUnits()
  const found = thermal.window
  if (!found) return null
  const { start_c: starts, least_kj_mm: least, most_kj_mm: most, target_s: target } = found
  const from = starts[0] ?? 0
  const to = starts.at(-1) ?? 1
  const hottest = Math.max(...thermal.passes.map((one) => one.heat_most_kj_mm), 0)
  const high = Math.max(Math.min(most[0] ?? 1, hottest * 2.2 || 4), hottest * 1.15, 0.5)
  const x = (celsius: number) =>
    LEFT + ((Math.min(Math.max(celsius, from), to) - from) / (to - from)) * (WIDTH - LEFT - RIGHT)
  const y = (heat: number) => HEIGHT - BOTTOM - (Math.min(heat, high) / high) * (HEIGHT - BOTTOM - TOP)
  const line = (values: readonly number[]) =>
    starts.map((celsius, i) => `${x(celsius).toFixed(1)},${y(values[i] ?? 0).toFixed(1)}`)
  const coolest = Math.min(...thermal.passes.map((one) => one.heat_least_kj_mm))
  const span = thermal.start_c
  return (
    <section aria-label={t`Cooling window`}>
      <h3 className="text-[15px]">
        <Trans>
          Cooling window, t8/5 {target.min}–{target.max} s
        </Trans>
      </h3>
      <svg
        viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
        className="mt-1 block w-full"
        role="img"
        aria-label={t`Heat input against preheat for the wanted cooling time, with the draft's own rectangle`}
      >
        {ticks(high, 4).map((value) => (
          <g key={value}>
            <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(value)} y2={y(value)} className="stroke-hair" />
            <text x={LEFT - 5} y={y(value) + 4} textAnchor="end" className="fill-steel2 text-[11px]">
              {units.value(value, 'heat_input')}
            </text>
          </g>
        ))}
        {[50, 100, 150, 200, 250, 300]
          .filter((value) => value <= to)
          .map((value) => (
            <text
              key={value}
              x={x(value)}
              y={HEIGHT - BOTTOM + 14}
              textAnchor="middle"
              className="fill-steel2 text-[11px]"
            >
              {units.value(value, 'temperature')}
            </text>
          ))}
        <polygon points={[...line(least), ...line(most).reverse()].join(' ')} className="fill-accent-soft" />
        <polyline points={line(least).join(' ')} fill="none" className="stroke-accent" strokeWidth="1.5" />
        <polyline points={line(most).join(' ')} fill="none" className="stroke-accent" strokeWidth="1.5" />
        {span && Number.isFinite(coolest) && (
          <rect
            x={x(span.min)}
            width={Math.max(x(span.max) - x(span.min), 2)}
            y={y(hottest)}
            height={Math.max(y(coolest) - y(hottest), 2)}
            fill={temper(hottest)}
            fillOpacity="0.35"
            className="stroke-ink"
            strokeWidth="1.5"
          />
        )}
        <text x={WIDTH - RIGHT} y={HEIGHT - 4} textAnchor="end" className="fill-steel text-[11px]">
          <Trans>preheat to interpass, {units.unit('temperature')}</Trans>
        </text>
        <text x={4} y={TOP} className="fill-steel text-[11px]">
          <Trans>{units.unit('heat_input')}, with k</Trans>
        </text>
      </svg>
      <p className="text-[12px] text-steel2">
        <Trans>
          Shaded: heat input that cools within the time. The rectangle is this draft, preheat to interpass, coolest to
          hottest pass. {thermal.target.slice(0, 1).toUpperCase()}
          {thermal.target.slice(1)}.
        </Trans>
      </p>
      <Sources citations={[found.citation]} />
    </section>
  )
}
