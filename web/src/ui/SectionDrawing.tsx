import type { Drawing } from '../api/types'
import { useUnits } from '../session/units'
import { temper } from '../domain/temper'

type Props = {
  drawing: Drawing
  heat: ReadonlyMap<number, number>
  lit?: number | null
  onLight?: (pass: number | null) => void
  onPick?: (pass: number) => void
  welded?: ReadonlySet<number>
  /** Fill the height of what is around it, and not a share of the window's. */
  fit?: boolean
}

const FILLS: Record<string, string> = {
  member: 'url(#hatch)',
  discard: 'url(#hatch)',
  strip: 'var(--color-panel)',
  spare: 'var(--color-rail)',
}

/** The joint's section to scale. Beads carry their heat as a temper colour. */
export function SectionDrawing({ drawing, heat, lit, onLight, onPick, welded, fit = false }: Props) {
  const units = useUnits()
  const stroke = drawing.text_mm / 14
  const hatch = stroke * 9
  const faded = (pass: number) => welded !== undefined && !welded.has(pass)
  return (
    <svg
      viewBox={[drawing.x, drawing.y, drawing.width, drawing.height].join(' ')}
      className={`block w-full ${fit ? 'h-full' : 'max-h-[34vh]'}`}
      role="img"
      aria-label={drawing.caption}
      onMouseLeave={() => onLight?.(null)}
    >
      <defs>
        <pattern id="hatch" width={hatch} height={hatch} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2={hatch} stroke="var(--color-hatch)" strokeWidth={stroke} />
        </pattern>
      </defs>
      {drawing.shapes.map((shape, index) => {
        if (shape.kind === 'polygon') {
          const points = shape.points.map((point) => point.join(',')).join(' ')
          const pass = shape.pass_number
          if (pass == null)
            return (
              <polygon
                key={index}
                points={points}
                fill={FILLS[shape.role] ?? 'var(--color-line)'}
                className="stroke-ink"
                strokeWidth={stroke}
                strokeLinejoin="round"
              />
            )
          return (
            <polygon
              key={index}
              points={points}
              fill={faded(pass) ? 'var(--color-panel)' : temper(heat.get(pass))}
              fillOpacity={faded(pass) ? 1 : 0.9}
              className={lit === pass ? 'stroke-ink' : faded(pass) ? 'stroke-edge' : 'stroke-panel'}
              strokeWidth={lit === pass ? stroke * 2.2 : stroke}
              strokeLinejoin="round"
              onMouseEnter={() => onLight?.(pass)}
              onClick={() => onPick?.(pass)}
            />
          )
        }
        if (shape.kind === 'line') {
          const half = drawing.text_mm * 0.22
          const ends = shape.ticks ? [shape.points[0], shape.points.at(-1)] : []
          return (
            <g key={index} className="stroke-steel" fill="none">
              <polyline points={shape.points.map((point) => point.join(',')).join(' ')} strokeWidth={stroke * 0.7} />
              {ends.map(
                (end, i) =>
                  end && (
                    <line
                      key={i}
                      x1={Number(end[0]) - half}
                      y1={Number(end[1]) + half}
                      x2={Number(end[0]) + half}
                      y2={Number(end[1]) - half}
                      strokeWidth={stroke}
                    />
                  ),
              )}
            </g>
          )
        }
        const isBead = shape.pass_number != null
        const value =
          shape.value == null
            ? ''
            : shape.value_kind === 'angle'
              ? `${String(Number(shape.value.toFixed(1)))}°`
              : units.value(shape.value, 'gap')
        return (
          <text
            key={index}
            x={Number(shape.at[0])}
            y={Number(shape.at[1]) + (isBead ? 0.34 * drawing.text_mm : 0)}
            textAnchor={shape.anchor}
            fontSize={drawing.text_mm}
            fontWeight={isBead ? 600 : 400}
            className={`pointer-events-none ${isBead && !faded(shape.pass_number ?? 0) ? 'fill-white' : 'fill-ink'}`}
          >
            {[shape.text, value].filter(Boolean).join(' ')}
          </text>
        )
      })}
    </svg>
  )
}
