import type { Range } from '../api/types'

export type Rectangle = { across: Range; along: Range }
export type Edge = 'left' | 'right' | 'top' | 'bottom' | 'whole'

/** The rectangle with an edge, or the whole of it, moved; it stays inside the axes and never turns over. */
export function moved(before: Rectangle, edge: Edge, dx: number, dy: number, axes: Rectangle): Rectangle {
  const least = { across: (axes.across.max - axes.across.min) / 200, along: (axes.along.max - axes.along.min) / 200 }
  const { across, along } = before
  if (edge === 'left')
    return { across: { min: held(across.min + dx, least.across, across.max - least.across), max: across.max }, along }
  if (edge === 'right')
    return {
      across: { min: across.min, max: held(across.max + dx, across.min + least.across, axes.across.max) },
      along,
    }
  if (edge === 'bottom')
    return { across, along: { min: held(along.min + dy, least.along, along.max - least.along), max: along.max } }
  if (edge === 'top')
    return { across, along: { min: along.min, max: held(along.max + dy, along.min + least.along, axes.along.max) } }
  const sideways = held(dx, least.across - across.min, axes.across.max - across.max)
  const up = held(dy, least.along - along.min, axes.along.max - along.max)
  return { across: shifted(across, sideways), along: shifted(along, up) }
}

const held = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high)
const shifted = (range: Range, by: number): Range => ({ min: range.min + by, max: range.max + by })

/** Ends rounded to what a machine is set to: whole amps and whole mm/min. */
export function settled(rectangle: Rectangle): Rectangle {
  const whole = (range: Range): Range => ({
    min: Math.max(Math.round(range.min), 1),
    max: Math.max(Math.round(range.max), Math.max(Math.round(range.min), 1)),
  })
  return { across: whole(rectangle.across), along: whole(rectangle.along) }
}

/** Round steps of an axis, about this many. */
export function ticks(most: number, count = 5): number[] {
  const rough = most / count
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((one) => one * power).find((one) => one >= rough) ?? rough
  const found: number[] = []
  for (let value = 0; value <= most * 1.0001; value += step) found.push(value)
  return found
}

/** Ends of an axis about what was measured: a little room, and a steady value does not fill it with noise. */
export function padded(low: number | null, high: number | null): [number, number] {
  if (low === null || high === null || !Number.isFinite(low) || !Number.isFinite(high)) return [0, 1]
  const least = Math.max(Math.abs(high), Math.abs(low)) * 0.1 || 1
  const room = Math.max((high - low) * 0.08, (least - (high - low)) / 2)
  return [low - room, high + room]
}
