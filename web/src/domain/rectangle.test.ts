import { describe, expect, it } from 'vitest'

import { moved, padded, settled, ticks } from './rectangle'

const axes = { across: { min: 0, max: 500 }, along: { min: 0, max: 400 } }
const start = { across: { min: 200, max: 300 }, along: { min: 220, max: 260 } }

describe('a rectangle that is dragged', () => {
  it('moves one edge', () => {
    expect(moved(start, 'right', 40, 99, axes)).toEqual({
      across: { min: 200, max: 340 },
      along: { min: 220, max: 260 },
    })
    expect(moved(start, 'top', 99, 30, axes)).toEqual({ across: { min: 200, max: 300 }, along: { min: 220, max: 290 } })
  })

  it('moves as a whole and keeps its size at the edge of the chart', () => {
    const far = moved(start, 'whole', 900, 900, axes)
    expect(far).toEqual({ across: { min: 400, max: 500 }, along: { min: 360, max: 400 } })
  })

  it.each(['left', 'right', 'top', 'bottom'] as const)('never turns over by its %s edge', (edge) => {
    for (const by of [-900, 900]) {
      const { across, along } = moved(start, edge, by, by, axes)
      expect(across.min).toBeLessThan(across.max)
      expect(along.min).toBeLessThan(along.max)
      expect(across.min).toBeGreaterThan(0)
    }
  })

  it('settles on whole amps and mm/min', () => {
    expect(settled({ across: { min: 200.4, max: 300.6 }, along: { min: 0.2, max: 0.3 } })).toEqual({
      across: { min: 200, max: 301 },
      along: { min: 1, max: 1 },
    })
  })
})

it.each([
  [500, 5, [0, 100, 200, 300, 400, 500]],
  [90, 5, [0, 20, 40, 60, 80]],
])('round steps to %s', (most, count, steps) => {
  expect(ticks(most, count)).toEqual(steps)
})

it.each<[number | null, number | null, [number, number]]>([
  [8, 8, [7.6, 8.4]],
  [0, 0, [-0.5, 0.5]],
  [0, 100, [-8, 108]],
  [8, 8.2, [7.69, 8.51]],
  [null, null, [0, 1]],
])('gives an axis from %s to %s room', (low, high, ends) => {
  const [least, most] = padded(low, high)
  expect(least).toBeCloseTo(ends[0])
  expect(most).toBeCloseTo(ends[1])
})
