type Point = readonly number[]
type Line = { y: number; words: string; dashed?: boolean }
type Props = {
  points: readonly Point[]
  lines: readonly Line[]
  label: string
  xWords: string
  /** Fill between the wave and zero. */ filled?: boolean
}

const W = 460
const H = 150
const LEFT = 52
const RIGHT = 92
const TOP = 10
const BOTTOM = 22

/** Current over time, drawn to scale: the wave, zero, and its means. */
export function WaveDrawing({ points, lines, label, xWords, filled = false }: Props) {
  if (points.length < 2) return null
  const xs = points.map((point) => point[0] ?? 0)
  const ys = [0, ...points.map((point) => point[1] ?? 0), ...lines.map((line) => line.y)]
  const [left, right] = [Math.min(...xs), Math.max(...xs)]
  const [low, high] = [Math.min(...ys), Math.max(...ys)]
  const x = (value: number) => LEFT + ((value - left) / (right - left || 1)) * (W - LEFT - RIGHT)
  const y = (value: number) => TOP + ((high - value) / (high - low || 1)) * (H - TOP - BOTTOM)
  const path = points
    .map((point, index) => `${index === 0 ? 'M' : 'L'}${x(point[0] ?? 0).toFixed(1)} ${y(point[1] ?? 0).toFixed(1)}`)
    .join(' ')
  const spread = apart(lines.map((line) => y(line.y)))
  return (
    <svg viewBox={`0 0 ${String(W)} ${String(H)}`} role="img" aria-label={label} className="mt-2 w-full">
      {filled && (
        <path
          d={`${path} L${x(right).toFixed(1)} ${y(0).toFixed(1)} L${x(left).toFixed(1)} ${y(0).toFixed(1)} Z`}
          fill="var(--color-accent-soft)"
        />
      )}
      <line x1={LEFT} x2={W - RIGHT} y1={y(0)} y2={y(0)} stroke="var(--color-edge)" />
      {lines.map((line, index) => (
        <g key={line.words}>
          <line
            x1={LEFT}
            x2={W - RIGHT}
            y1={y(line.y)}
            y2={y(line.y)}
            stroke="var(--color-steel2)"
            strokeDasharray={line.dashed ? '2 3' : '5 3'}
          />
          <text x={W - RIGHT + 5} y={(spread[index] ?? 0) + 4} fontSize="11.5" fill="var(--color-steel)">
            {line.words}
          </text>
        </g>
      ))}
      <path d={path} fill="none" stroke="var(--color-accent)" strokeWidth="2" strokeLinejoin="round" />
      {[high, ...(low < 0 ? [low] : [])].map((value) => (
        <text key={value} x={LEFT - 5} y={y(value) + 4} fontSize="11.5" textAnchor="end" fill="var(--color-steel)">
          {value < 0 ? `−${String(Math.round(-value))}` : Math.round(value)} A
        </text>
      ))}
      <text x={LEFT - 5} y={y(0) + 4} fontSize="11.5" textAnchor="end" fill="var(--color-steel2)">
        0
      </text>
      <text x={W - RIGHT} y={H - 6} fontSize="11.5" textAnchor="end" fill="var(--color-steel2)">
        {xWords}
      </text>
    </svg>
  )
}

/** Move labels apart that would lie on each other, keeping their order. */
function apart(wanted: readonly number[]): number[] {
  const order = wanted.map((value, index) => ({ value, index })).sort((a, b) => a.value - b.value)
  const placed = [...wanted]
  let last = -Infinity
  for (const one of order) {
    last = Math.max(one.value, last + 13)
    placed[one.index] = last
  }
  return placed
}
