import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { Coupon } from '../../api/types'
import { useUnits } from '../../session/units'
import { niceTicks } from '../../domain/band'
import { shown } from '../../domain/quantity'
import { temper } from '../../domain/temper'
import { digits } from '../../session/language'

const W = 640
const H = 190
const LEFT = 44
const RIGHT = 56
const TOP = 14
const FOOT = 26

/** Heat input and the temperature before each pass, by pass. */
export function HeatChart({ coupon }: { coupon: Coupon }) {
  const units = useUnits()
  const results = new Map(coupon.log.passes.map((one) => [one.pass_number, one]))
  const rows = new Map(coupon.rows.map((row) => [row.record.number, row.record]))
  const numbers = [...new Set([...coupon.procedure.passes.map((one) => one.number), ...results.keys()])].sort(
    (a, b) => a - b,
  )
  const wanted = coupon.procedure.thermal?.heat_input_kj_mm
  const limit = coupon.procedure.thermal?.interpass_max_c
  const tallest = Math.max(1, wanted?.max ?? 0, ...coupon.log.passes.map((one) => one.heat_input_kj_mm ?? 0)) * 1.12
  const hottest = Math.max(100, limit ?? 0, ...[...rows.values()].map((one) => one.before_c ?? 0)) * 1.12
  const kind = units.kind('heat_input')
  const y = (share: number) => TOP + (1 - share) * (H - TOP - FOOT)
  const step = (W - LEFT - RIGHT) / Math.max(numbers.length, 1)
  const x = (index: number) => LEFT + step * (index + 0.5)
  const points = numbers
    .map((number, index) => [x(index), rows.get(number)?.before_c, number] as const)
    .filter((point): point is readonly [number, number, number] => point[1] != null)
  return (
    <section aria-label={t`Heat input by pass`} className="panel p-3">
      <h2 className="flex justify-between text-[16px]">
        <Trans>
          Heat input by pass, {units.unit('heat_input')}
          <span className="font-sans text-[13px] font-normal text-steel2">
            ○ {units.unit('temperature')} before the pass
          </span>
        </Trans>
      </h2>
      <svg
        viewBox={`0 0 ${String(W)} ${String(H)}`}
        className="w-full"
        role="img"
        aria-label={numbers
          .map(
            (number) =>
              t`pass ${number}: ${results.get(number)?.heat_input_kj_mm == null ? t`not logged` : `${units.value(results.get(number)?.heat_input_kj_mm ?? 0, 'heat_input')} ${units.unit('heat_input')}`}`,
          )
          .join('; ')}
      >
        {niceTicks(shown(tallest, kind, units.system), 4).map((tick) => {
          const at = y(tick / shown(tallest, kind, units.system))
          return (
            <g key={tick}>
              <line x1={LEFT} x2={W - RIGHT} y1={at} y2={at} className="stroke-line" />
              <text x={LEFT - 6} y={at + 4} textAnchor="end" fontSize="12" className="fill-steel2">
                {digits(String(tick))}
              </text>
            </g>
          )
        })}
        {wanted && (
          <rect
            x={LEFT}
            width={W - LEFT - RIGHT}
            y={y(wanted.max / tallest)}
            height={y(wanted.min / tallest) - y(wanted.max / tallest)}
            className="fill-accent"
            opacity="0.12"
          />
        )}
        {numbers.map((number, index) => {
          const result = results.get(number)
          const heat = result?.heat_input_kj_mm
          const out = result?.findings.some((one) => one.verdict === 'violates') ?? false
          const width = Math.min(step * 0.56, 46)
          return (
            <g key={number}>
              {heat != null && (
                <>
                  <rect
                    x={x(index) - width / 2}
                    width={width}
                    y={y(heat / tallest)}
                    height={y(0) - y(heat / tallest)}
                    fill={temper(heat)}
                    className={out ? 'stroke-breach' : ''}
                    strokeWidth={out ? 2.5 : 0}
                  />
                  <text
                    x={x(index)}
                    y={Math.min(y(heat / tallest) + 15, y(0) - 4)}
                    textAnchor="middle"
                    fontSize="12"
                    fontWeight="600"
                    className="fill-white"
                  >
                    {units.value(heat, 'heat_input')}
                  </text>
                </>
              )}
              <text x={x(index)} y={H - 8} textAnchor="middle" fontSize="12" className="fill-steel">
                {number}
              </text>
            </g>
          )
        })}
        {limit != null && (
          <>
            <line
              x1={LEFT}
              x2={W - RIGHT}
              y1={y(limit / hottest)}
              y2={y(limit / hottest)}
              className="stroke-breach"
              strokeDasharray="5 4"
            />
            <text x={W - RIGHT + 5} y={y(limit / hottest) + 4} fontSize="12" className="fill-breach">
              {units.value(limit, 'temperature')} {units.unit('temperature')}
            </text>
          </>
        )}
        <polyline
          points={points.map(([px, c]) => `${String(px)},${String(y(c / hottest))}`).join(' ')}
          fill="none"
          className="stroke-ink"
          strokeDasharray="2 4"
          strokeWidth="1.5"
        />
        {points.map(([px, c, number]) => (
          <circle
            key={number}
            cx={px}
            cy={y(c / hottest)}
            r="4.5"
            strokeWidth="2"
            className={`fill-panel ${limit != null && c > limit ? 'stroke-breach' : 'stroke-ink'}`}
          >
            <title>{t`before pass ${number}: ${units.value(c, 'temperature')} ${units.unit('temperature')}`}</title>
          </circle>
        ))}
      </svg>
    </section>
  )
}
