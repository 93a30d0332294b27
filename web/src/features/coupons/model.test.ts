import { describe, expect, it } from 'vitest'

import type { PassRecord } from '../../api/types'
import { STOPPED } from '../../domain/stopwatch'
import { entryOf, isTouched, newEntry, recordOf } from './model'

const logged: PassRecord = {
  number: 2,
  side: 2,
  energy_method: 'mean',
  process: '135',
  segments: [],
  flags: [],
  current_a: { mean: 118, min: 112, max: 126 },
  voltage_v: 24,
  length_mm: 300,
  time_s: 90,
  before_c: 140,
  interpass: { place: '25 mm beside', quenched: false },
}

describe('what is typed becomes a pass of the document', () => {
  it('a value is a value, a range is a reading with both ends', () => {
    const entry = {
      ...newEntry(3, { lengthMm: 300 }),
      timeS: 80,
      current: { min: 120, max: 130 },
      voltage: { min: 24, max: 24 },
    }
    expect(recordOf(entry)).toMatchObject({
      number: 3,
      length_mm: 300,
      time_s: 80,
      current_a: { mean: 125, min: 120, max: 130 },
      voltage_v: 24,
    })
  })
  it('several stretches of arc are kept apart and add up', () => {
    const entry = { ...newEntry(1), watch: { stretches: [30, 42.5], startedAt: null } }
    expect(recordOf(entry)).toMatchObject({ time_s: 72.5, segments: [{ time_s: 30 }, { time_s: 42.5 }] })
  })
  it('Typed time overrides the stopwatch', () => {
    const entry = { ...newEntry(1), timeS: 70, watch: { stretches: [30, 42.5], startedAt: null } }
    expect(recordOf(entry)).toMatchObject({ time_s: 70, segments: [] })
  })
})

describe('a correction', () => {
  it('keeps what the form does not show', () => {
    const entry = entryOf({ id: 5, version: 3, record: logged })
    expect(entry.correcting).toEqual({ id: 5, version: 3 })
    expect(recordOf({ ...entry, beforeC: 150 }, logged)).toMatchObject({
      side: 2,
      process: '135',
      before_c: 150,
      interpass: { place: '25 mm beside', quenched: false },
    })
  })
  it('changes nothing if nothing was changed: a mean stays the mean that was read', () => {
    const record = { ...logged, segments: [{ time_s: 40 }, { time_s: 50 }] }
    expect(recordOf(entryOf({ id: 5, version: 3, record }), record)).toMatchObject(record)
  })
  it('drops the stretches when another time is typed', () => {
    const record = { ...logged, segments: [{ time_s: 40 }, { time_s: 50 }] }
    const entry = { ...entryOf({ id: 5, version: 3, record }), timeS: 88 }
    expect(recordOf(entry, record)).toMatchObject({ time_s: 88, segments: [] })
  })
})

it('an entry counts as touched once anything was typed or timed', () => {
  expect(isTouched(newEntry(1, { lengthMm: 300 }))).toBe(false) // the length carries over by itself
  expect(isTouched({ ...newEntry(1), beforeC: 20 })).toBe(true)
  expect(isTouched({ ...newEntry(1), watch: { ...STOPPED, startedAt: 1 } })).toBe(true)
})
