import { expect, test } from 'vitest'

import { dayAndTime } from './dayAndTime'

test.each([
  [new Date(2026, 0, 5, 7, 3), '2026-01-05 07:03'],
  [new Date(2026, 11, 31, 23, 59), '2026-12-31 23:59'],
])('a moment is written in the reader’s own time', (at, said) => {
  expect(dayAndTime(at.toISOString())).toBe(said)
})
