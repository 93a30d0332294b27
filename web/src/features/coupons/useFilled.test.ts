import { expect, test } from 'vitest'

import type { BeadSettings } from '../../api/types'
import { readTried, triedOf } from '../../domain/tried'
import { newEntry } from './model'
import { filledBy } from './useFilled'

const TRIED = triedOf(2, { current_a: 120, voltage_v: 24, wire_feed_m_min: null } as unknown as BeadSettings)
const at = (value: number) => ({ min: value, max: value })

test('a tried setting brings what a trial weld records, and nothing measured', () => {
  expect(TRIED).toEqual({ number: 2, current: at(120), voltage: at(24), feed: null, flow: null })
})

test.each([
  ['an empty entry is filled', TRIED, {}, 'filled'],
  ['what was typed stays', TRIED, { voltage: at(19) }, 'kept'],
  ['the same again says nothing', TRIED, { current: at(120), voltage: at(24) }, null],
  ['nothing tried', null, {}, null],
] as const)('%s', (_, tried, typed, expected) => {
  expect(filledBy(tried, { ...newEntry(1), ...typed })).toBe(expected)
})

test.each([[null], [undefined], [{}], [{ tried: 3 }], [{ tried: { number: 'x' } }], ['text']])(
  'a history that holds %j brings nothing',
  (state) => {
    expect(readTried(state)).toBeNull()
  },
)
