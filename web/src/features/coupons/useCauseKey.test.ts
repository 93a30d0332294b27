import { expect, test } from 'vitest'

import type { Coupon } from '../../api/types'
import { flaggedLast } from './useCauseKey'

const row = (id: number, number: number, flags = 0) => ({
  id,
  record: { number, flags: Array.from({ length: flags }, () => ({ rule: 'x' })) },
})
const coupon = (rows: unknown[], breached: number[]) =>
  ({
    rows,
    log: { passes: breached.map((pass_number) => ({ pass_number, findings: [{ verdict: 'violates' }] })) },
  }) as unknown as Coupon

test.each([
  ['a breach before a later clean pass', [row(11, 1), row(12, 2), row(13, 3)], [2], 12],
  ['the later of two', [row(11, 1, 1), row(12, 2), row(13, 3)], [3], 13],
  ['a flag alone', [row(11, 1, 1), row(12, 2)], [], 11],
  ['nothing flagged: the last logged', [row(12, 2), row(11, 1)], [], 12],
  ['nothing logged', [], [], null],
])('%s', (_, rows, breached, expected) => {
  expect(flaggedLast(coupon(rows, breached))).toBe(expected)
})
