import type { Range } from '../api/types'

/** A scale that holds every range given, with some air on both sides. */
export function scaleOver(ranges: readonly (Range | null | undefined)[]): Range | null {
  const known = ranges.filter((range): range is Range => range != null)
  if (known.length === 0) return null
  const min = Math.min(...known.map((range) => range.min))
  const max = Math.max(...known.map((range) => range.max))
  const air = Math.max((max - min) * 0.18, max * 0.06, 1e-6)
  return { min: Math.max(min - air, 0), max: max + air }
}

/** Where a value lies on the scale, 0 to 1, kept on it. */
export function place(value: number, scale: Range): number {
  if (scale.max <= scale.min) return 0.5
  return Math.min(Math.max((value - scale.min) / (scale.max - scale.min), 0), 1)
}

/** Round numbers from zero up to a height, about as many as wanted. */
export function niceTicks(height: number, wanted: number): number[] {
  if (!(height > 0)) return [0]
  const rough = height / wanted
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = ([1, 2, 5].find((one) => one * power >= rough) ?? 10) * power
  const decimals = Math.max(0, -Math.floor(Math.log10(step)))
  return Array.from({ length: Math.floor(height / step + 1e-9) + 1 }, (_, i) => Number((i * step).toFixed(decimals)))
}
