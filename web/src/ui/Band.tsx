import type { Range } from '../api/types'
import { place } from '../domain/band'

type Props = {
  scale: Range | null
  range?: Range | null
  /** Ends that are not limited have no bracket. */
  limits?: { min?: number | null; max?: number | null } | null
  dots?: readonly { value: number; out: boolean }[]
  colour?: string
  height?: number
  label: string
}

const WIDTH = 100

/** The one glyph for a parameter: range as a bar, limits as brackets, measured points as dots. */
export function Band({ scale, range, limits, dots = [], colour, height = 16, label }: Props) {
  const mid = height / 2
  const at = (value: number) => 4 + (scale ? place(value, scale) : 0.5) * (WIDTH - 8)
  return (
    <div className="relative">
      <svg
        viewBox={`0 0 ${String(WIDTH)} ${String(height)}`}
        preserveAspectRatio="none"
        className="block w-full"
        height={height}
        role="img"
        aria-label={label}
      >
        <line x1="2" x2={WIDTH - 2} y1={mid} y2={mid} className="stroke-line" strokeWidth="2" />
        {scale && range && (
          <rect
            x={at(range.min)}
            y={mid - 4}
            width={Math.max(at(range.max) - at(range.min), 1.2)}
            height="8"
            rx="1"
            fill={colour ?? 'var(--color-accent)'}
          />
        )}
        {scale && limits && (
          <g className="stroke-ink" fill="none" strokeWidth="1.6" vectorEffect="non-scaling-stroke">
            {limits.min != null && <path d={`M${String(at(limits.min) + 2)} 1 h-2 V${String(height - 1)} h2`} />}
            {limits.max != null && <path d={`M${String(at(limits.max) - 2)} 1 h2 V${String(height - 1)} h-2`} />}
          </g>
        )}
      </svg>
      {/* The scale stretches with its column; the dots stay round. */}
      {scale &&
        dots.map((dot, index) => (
          <span
            key={index}
            className={`absolute top-1/2 size-3 -translate-x-1/2 -translate-y-1/2 rounded-full border border-panel ${dot.out ? 'bg-breach' : 'bg-straw'}`}
            style={{ left: `${String(at(dot.value))}%` }}
          />
        ))}
    </div>
  )
}
