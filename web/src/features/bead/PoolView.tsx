import { t } from '@lingui/core/macro'

import type { BeadPrediction } from '../../api/types'

type Props = { item: BeadPrediction; travelMmMin: number | null | undefined; thicknessMm: number }

/** Shown so many times slower than welded where it would pass too fast to be seen. */
const SECONDS_ACROSS = 8

/** The pool from the side as it travels: drawn from the length, depth and height that are predicted. */
export function PoolView({ item, travelMmMin, thicknessMm }: Props) {
  const value = (key: string) => item.figures.find((one) => one.key === key)?.value ?? null
  const length = value('pool_length_mm')
  const depth = value('penetration_mm')
  const height = value('reinforcement_mm') ?? 0
  if (length === null || depth === null || !travelMmMin) return null
  const across = Math.max(3 * length, 30)
  const plate = Math.min(thicknessMm, Math.max(2 * depth, 4))
  const top = Math.max(height, 1) + 0.22 * across
  // The arc stands over the front of the pool, most of which trails.
  const front = 0.25 * length
  const label = t`Side view of the moving pool`
  const half = plate * 0.5
  return (
    <figure className="min-w-0">
      <svg
        role="img"
        aria-label={label}
        viewBox={`${-across} ${-top} ${2 * across} ${top + plate}`}
        className="max-h-[150px] w-full overflow-hidden"
      >
        <rect x={-across} y={0} width={2 * across} height={plate} fill="var(--color-hair)" />
        <line x1={-across} x2={across} y1={0} y2={0} stroke="var(--color-steel2)" strokeWidth={across / 300} />
        <g className="pool-travels" style={{ animationDuration: `${SECONDS_ACROSS}s` }}>
          <rect
            x={-3 * across}
            y={-height}
            width={3 * across - length / 2}
            height={height}
            fill="var(--color-steel2)"
            opacity={0.55}
          />
          <path
            d={`M${-length + front} ${-height}Q${-length / 3} ${-height * 1.1} ${front} 0Q${front * 0.6} ${depth} ${-length * 0.15} ${depth}Q${-length * 0.7} ${depth * 0.8} ${-length + front} 0Z`}
            fill="var(--color-straw)"
            stroke="var(--color-ink)"
            strokeWidth={across / 400}
          />
          <path d={`M0 ${-half}L${-across / 45} 0L${across / 45} 0Z`} fill="var(--color-caution)" opacity={0.8} />
          <line x1={0} y1={-half} x2={-across * 0.06} y2={-top} stroke="var(--color-ink)" strokeWidth={across / 60} />
        </g>
      </svg>
      <figcaption className="text-center text-[12px] text-steel2">{label}</figcaption>
    </figure>
  )
}
