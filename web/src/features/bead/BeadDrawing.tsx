import { t } from '@lingui/core/macro'

import type { BeadFigure, BeadPicture } from '../../api/types'
import { fixed } from '../../session/language'

type Point = readonly number[]

/** Half the width that a drawing needs, so that drawings side by side have one scale. */
export function halfOf(picture: BeadPicture): number {
  const widest = Math.max(
    ...picture.lines.filter((one) => one.peak_c >= 500).flatMap((one) => one.points.map(([x = 0]) => x)),
    6,
  )
  return Math.min(Math.max(widest * 1.15, 6), 40)
}

/** Lines whose temperature is written: the zone first, then what has room beside it. */
function labels(lines: BeadPicture['lines'], half: number): Set<string> {
  const at = (one: BeadPicture['lines'][number]) => one.points.at(-1)?.[0] ?? 0
  const taken: number[] = []
  const found = new Set<string>()
  const first = (one: BeadPicture['lines'][number]) => (one.name === 'zone' ? 0 : 1)
  for (const one of [...lines].sort((a, b) => first(a) - first(b))) {
    const x = at(one)
    if (one.name === 'pool' || x > half * 0.95 || taken.some((other) => Math.abs(other - x) < half * 0.17)) continue
    taken.push(x)
    found.add(one.name)
  }
  return found
}

/** The bead in section: crown, fusion, the zone beside it and lines of peak temperature. */
export function BeadDrawing({
  picture,
  tint,
  half,
  grid = false,
}: {
  picture: BeadPicture
  tint: BeadFigure | undefined
  half: number
  /** Lines 1 mm apart over it, to measure by, and no temperatures. */
  grid?: boolean
}) {
  const { lines, crown } = picture
  const pool = lines.find((one) => one.name === 'pool')
  const labelled = grid ? new Set<string>() : labels(lines, half)
  const top = Math.max(...crown.map(([, y = 0]) => y), 1) * 1.6
  const down = Math.min(picture.thickness_mm, half * 1.1) + 1
  const path = (points: readonly Point[]) => points.map(([x = 0, y = 0]) => `${x},${-y}`).join(' ')
  const label = t`Section of the bead, drawn from the model`
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`${-half} ${-top} ${2 * half} ${top + down}`}
      className="max-h-[260px] w-full"
      preserveAspectRatio="xMidYMid meet"
    >
      <rect
        x={-half * 1.6}
        y={0}
        width={half * 3.2}
        height={Math.min(picture.thickness_mm, down + 4)}
        fill="var(--color-hair)"
        stroke="var(--color-steel2)"
        strokeWidth={half / 160}
      />
      {lines
        .filter((one) => (grid ? one.name === 'zone' : one.name !== 'pool'))
        .map((one) => (
          <g key={one.name}>
            <polygon
              points={path(one.points)}
              fill={one.name === 'zone' ? 'var(--color-straw)' : 'none'}
              fillOpacity={0.35}
              stroke="var(--color-steel2)"
              strokeDasharray={one.name === 'zone' ? 'none' : `${half / 40}`}
              strokeWidth={half / 200}
            />
            {labelled.has(one.name) && (
              <text
                x={one.points.at(-1)?.[0] ?? 0}
                y={-0.03 * half}
                fontSize={half / 16}
                textAnchor="middle"
                className="fill-steel2"
              >
                {fixed(one.peak_c, 0)}°
              </text>
            )}
          </g>
        ))}
      {pool && <polygon points={path(pool.points)} fill="var(--color-straw)" fillOpacity={0.9} />}
      <polygon
        points={path(crown)}
        fill={tint?.swatch ? tint.swatch : 'var(--color-straw)'}
        stroke="var(--color-ink)"
        strokeWidth={half / 220}
      />
      {grid && <Grid half={half} top={top} down={down} />}
    </svg>
  )
}

function Grid({ half, top, down }: { half: number; top: number; down: number }) {
  const across = Array.from({ length: 2 * Math.floor(half) + 1 }, (_, place) => place - Math.floor(half))
  const along = Array.from({ length: Math.floor(top) + Math.floor(down) + 1 }, (_, place) => place - Math.floor(top))
  const width = (at: number) => (at % 5 === 0 ? half / 200 : half / 500)
  return (
    <g stroke="var(--color-steel)" opacity={0.5}>
      {across.map((x) => (
        <line key={`x${x}`} x1={x} x2={x} y1={-top} y2={down} strokeWidth={width(x)} />
      ))}
      {along.map((y) => (
        <line key={`y${y}`} x1={-half} x2={half} y1={y} y2={y} strokeWidth={width(y)} />
      ))}
    </g>
  )
}
