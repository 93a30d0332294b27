import type { Coupon, PassRecord, Range } from '../../api/types'
import { STOPPED, total, type Stopwatch } from '../../domain/stopwatch'

/** What is being typed for one pass. */
export type Entry = {
  clientId: string
  number: number
  lengthMm: number | null
  timeS: number | null
  current: Range | null
  voltage: Range | null
  feed: Range | null
  beforeC: number | null
  remarks: string | null
  quenched: boolean
  watch: Stopwatch
  /** The row that is corrected, where this is a correction. */
  correcting: { id: number; version: number } | null
}

export function newEntry(number: number, lengthMm: number | null = null): Entry {
  return {
    clientId: newId(), number, lengthMm, timeS: null, current: null, voltage: null, feed: null,
    beforeC: null, remarks: null, quenched: false, watch: STOPPED, correcting: null,
  }
}

/** A random id; also where the page is not served over https. */
function newId(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID()
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

/** The next planned pass that is not in the log. */
export function nextPass(coupon: Coupon): number {
  return coupon.log.to_weld[0] ?? Math.max(0, ...coupon.rows.map((row) => row.record.number)) + 1
}

/** The reading of what is typed; where it was not changed, the reading as it stands, mean and all. */
function reading(range: Range | null, before: PassRecord['current_a']) {
  if (!range) return null
  const stood = spread(before)
  if (stood?.min === range.min && stood.max === range.max) return before
  if (range.min === range.max) return range.min
  return { mean: (range.min + range.max) / 2, min: range.min, max: range.max }
}

function spread(value: PassRecord['current_a']): Range | null {
  if (value == null) return null
  if (typeof value === 'number') return { min: value, max: value }
  return { min: value.min ?? value.mean, max: value.max ?? value.mean }
}

/** The pass of the document; the stopwatch gives the time unless one was typed. */
export function recordOf(entry: Entry, before: PassRecord | null = null): PassRecord {
  const stopped = total(entry.watch, entry.watch.startedAt ?? 0)
  const stretches = entry.watch.stretches.filter((one) => one > 0)
  const time = entry.timeS ?? (stopped > 0 ? stopped : null)
  const untimed = before !== null && stretches.length === 0 && time === (before.time_s ?? null)
  return {
    ...(before ?? { side: 1, energy_method: 'mean' as const }),
    number: entry.number,
    length_mm: entry.lengthMm,
    time_s: time,
    segments: untimed ? before.segments : entry.timeS === null && stretches.length > 1 ? stretches.map((time_s) => ({ time_s })) : [],
    current_a: reading(entry.current, before?.current_a),
    voltage_v: reading(entry.voltage, before?.voltage_v),
    wire_feed_m_min: reading(entry.feed, before?.wire_feed_m_min),
    before_c: entry.beforeC,
    interpass: entry.quenched ? { ...before?.interpass, quenched: true } : (before?.interpass && { ...before.interpass, quenched: false }),
    remarks: entry.remarks,
  }
}

/** An entry that corrects a logged pass. */
export function entryOf(row: { id: number; version: number; record: PassRecord }): Entry {
  const { record } = row
  return {
    ...newEntry(record.number, record.length_mm ?? null),
    timeS: record.time_s ?? null,
    current: spread(record.current_a),
    voltage: spread(record.voltage_v),
    feed: spread(record.wire_feed_m_min),
    beforeC: record.before_c ?? null,
    remarks: record.remarks ?? null,
    quenched: record.interpass?.quenched ?? false,
    correcting: { id: row.id, version: row.version },
  }
}

/** Whether anything was typed or timed. */
export function isTouched(entry: Entry): boolean {
  return (
    entry.timeS !== null || entry.current !== null || entry.voltage !== null || entry.feed !== null ||
    entry.beforeC !== null || entry.remarks !== null || entry.watch.startedAt !== null || entry.watch.stretches.length > 0
  )
}
