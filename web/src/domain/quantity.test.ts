import { describe, expect, it } from 'vitest'

// One case table with paper: tests/welding/test_writing.py reads it too.
import table from '../../../tests/welding/cases/writing.json'
import type { Kind } from '../api/types'
import { clockText, numberText, plainNumbers, rangeText } from './quantity'

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

describe('while the server is away', () => {
  const feed: Kind = {
    name: 'temperature',
    unit: '°C',
    us_unit: '°F',
    us_scale: 1.8,
    us_offset: 32,
    decimals: 0,
    us_decimals: 0,
    us_fraction: 0,
    us_fraction_from: 0,
  }
  it.each([
    ['118', 'si', { min: 118, max: 118 }],
    ['24,5', 'si', { min: 24.5, max: 24.5 }],
    ['112-126', 'si', { min: 112, max: 126 }],
    ['112 – 126', 'si', { min: 112, max: 126 }],
    ['212', 'us', { min: 100, max: 100 }],
    ['126-112', 'si', null],
    ['1,234', 'si', null], // thousands or a decimal: the core asks, so it waits
    ['118-1,234', 'si', null],
    ['0,123', 'si', { min: 0.123, max: 0.123 }],
    ['.045', 'si', null], // inch, as the core would say: it waits
    ['10 ipm', 'si', null],
    ['3/32', 'si', null],
    ['', 'si', null],
  ] as const)('%s in %s is %o', (text, system, range) => {
    expect(plainNumbers(text, feed, system)).toEqual(range)
  })
})
