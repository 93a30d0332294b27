import { expect, test } from 'vitest'

import { arcSamples, clickTimes } from './arcSamples'

/** A generator of numbers between 0 and 1 that gives the same ones every time. */
function drawn(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return state / 4294967296
  }
}
const sound = (more: object) => ({ clicks_hz: 0, irregular: 0, hiss: 0, tone_hz: 0, caption: '', ...more })
const loud = (samples: Float32Array) => Math.sqrt(samples.reduce((sum, one) => sum + one * one, 0) / samples.length)

test('clicks come at their rate, evenly or not', () => {
  const even = clickTimes(sound({ clicks_hz: 100 }), 3, drawn(1))
  expect(Math.abs(even.length - 300)).toBeLessThanOrEqual(1)
  const gaps = (times: number[]) => times.slice(1).map((one, place) => one - (times[place] ?? 0))
  expect(Math.max(...gaps(even)) - Math.min(...gaps(even))).toBeLessThan(1e-6)
  const uneven = gaps(clickTimes(sound({ clicks_hz: 25, irregular: 0.6 }), 3, drawn(1)))
  expect(Math.max(...uneven) / Math.min(...uneven)).toBeGreaterThan(1.5)
  expect(clickTimes(sound({}), 3, drawn(1))).toEqual([])
})

test.each([
  ['crackle', { clicks_hz: 100, irregular: 0.15, hiss: 0.1 }],
  ['hiss', { hiss: 0.8 }],
  ['hum', { tone_hz: 120, hiss: 0.15 }],
])('%s is heard and never over full scale', (_, more) => {
  const samples = arcSamples(sound(more), 8000, 1, drawn(7))
  expect(samples.length).toBe(8000)
  expect(Math.max(...samples.map(Math.abs))).toBeLessThanOrEqual(1)
  expect(loud(samples)).toBeGreaterThan(0.02)
})

test('nothing to hear is silence', () => {
  expect(loud(arcSamples(sound({}), 8000, 0.5, drawn(3)))).toBe(0)
})
