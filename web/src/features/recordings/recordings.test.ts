import { describe, expect, it } from 'vitest'

import type { Recording } from '../../api/types'
import { withGaps } from '../../domain/trace'
import { partsOf } from './model'

describe('the trace', () => {
  it('is parted where samples are missing', () => {
    expect(withGaps([0, 1, 2, 9, 10], [5, 5, 5, 6, 6], [7, 7, 7, 8, 8])).toEqual([
      [0, 1, 2, 5.5, 9, 10],
      [5, 5, 5, null, 6, 6],
      [7, 7, 7, null, 8, 8],
    ])
  })
  it('is left as it is where none are', () => {
    expect(withGaps([0, 1, 2], [5, null, 5], [7, null, 7])).toEqual([
      [0, 1, 2],
      [5, null, 5],
      [7, null, 7],
    ])
  })
})

const found = (start_s: number) => ({ start_s, end_s: start_s + 20, stretches_s: [], measured: {}, waveform: {} })

it('parts are numbered from what is still to weld; a part that was taken keeps its number', () => {
  const recording = {
    analysis: { passes: [found(2), found(50), found(100)] },
    taken: [{ pass_number: 4, start_s: 2, end_s: 22, taken_by: 'x' }],
  } as unknown as Recording
  expect(partsOf(recording, [5, 6]).map((one) => one.number)).toEqual([4, 5, 6])
})
