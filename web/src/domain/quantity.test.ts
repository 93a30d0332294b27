import { describe, expect, it } from 'vitest'

// One case table with paper: tests/welding/test_writing.py reads it too.
import table from '../../../tests/welding/cases/writing.json'
import type { Kind } from '../api/types'
import { clockText, numberText, rangeText } from './quantity'

const kinds: Record<string, Kind> = table.kinds

function kind(name: string): Kind {
  const found = kinds[name]
  if (!found) throw new Error(name)
  return found
}

describe('numbers as on paper', () => {
  it.each(table.numbers)('$kind $value', (one) => {
    expect(numberText(one.value, kind(one.kind), 'si')).toBe(one.si)
    expect(numberText(one.value, kind(one.kind), 'us')).toBe(one.us)
  })
  it.each(table.ranges)('$kind $min to $max', (one) => {
    expect(rangeText(one, kind(one.kind), 'si')).toBe(one.si)
    expect(rangeText(one, kind(one.kind), 'us')).toBe(one.us)
  })
})

it.each([
  [0, '00:00.0'],
  [9.96, '00:09.9'],
  [59.9, '00:59.9'],
  [60, '01:00.0'],
  [102.3, '01:42.3'],
  [3600, '60:00.0'],
])('the clock at %s s', (seconds, text) => {
  expect(clockText(seconds)).toBe(text)
})
