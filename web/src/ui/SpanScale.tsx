import { t } from '@lingui/core/macro'
import type { RangeItem } from '../api/types'
import { useUnits } from '../session/units'
import { digits } from '../session/language'

type Props = { item: RangeItem; quantity: string; low: number; high: number }

const WIDTH = 132

/** The one glyph: a scale with the qualified span as a bar, its ends as brackets, the tested point as a dot. */
export function SpanScale({ item, quantity, low, high }: Props) {
  const units = useUnits()
  const at = (value: number) => 4 + ((Math.min(Math.max(value, low), high) - low) / (high - low || 1)) * (WIDTH - 8)
  const start = item.min == null ? 0 : at(item.min)
  const end = item.max == null ? WIDTH : at(item.max)
  const tested = item.tested && !Array.isArray(item.tested) && 'min' in item.tested ? item.tested : null
  const write = (value: number) => (quantity ? units.value(value, quantity) : digits(String(value)))
  return (
    <svg
      width={WIDTH}
      height="18"
      viewBox={`0 0 ${String(WIDTH)} 18`}
      role="img"
      className="block"
      aria-label={t`qualified ${item.min == null ? t`without a lower limit` : t`from ${write(item.min)}`} ${item.max == null ? t`without an upper limit` : t`to ${write(item.max)}`}`}
    >
      <path d={`M0 13H${String(WIDTH)}`} className="stroke-line" />
      <rect x={start} y="7" width={Math.max(end - start, 1)} height="6" className="fill-accent" opacity="0.28" />
      {item.min != null && (
        <path
          d={`M${String(start + 4)} 4H${String(start)}V16H${String(start + 4)}`}
          className="fill-none stroke-accent"
          strokeWidth="1.6"
        />
      )}
      {item.max != null && (
        <path
          d={`M${String(end - 4)} 4H${String(end)}V16H${String(end - 4)}`}
          className="fill-none stroke-accent"
          strokeWidth="1.6"
        />
      )}
      {tested &&
        [tested.min, tested.max].map((value, index) => (
          <circle key={index} cx={at(value)} cy="10" r="3" className="fill-ink" />
        ))}
    </svg>
  )
}
