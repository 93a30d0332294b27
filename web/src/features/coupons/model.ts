import type { Coupon, PassRecord, Range } from '../../api/types'
import { newId } from '../../domain/ids'
import { arcEnergyKjMm } from '../../domain/mirror'
import { meanOf } from '../../domain/reading'
import { STOPPED, elapsed, total, type Stopwatch } from '../../domain/stopwatch'
import type { WaitingPass } from '../../domain/waiting'

/** What is being typed for one pass. */
export type Entry = {
  clientId: string
  number: number
  lengthMm: number | null
  timeS: number | null
  current: Range | null
  voltage: Range | null
  feed: Range | null
  flow: Range | null
  beforeC: number | null
  /** Time of day of the reading. */
  readAt: string | null
  place: string | null
  depositMm: number | null
  layer: number | null
  runOutMm: number | null
  batch: string | null
  remarks: string | null
  quenched: boolean
  watch: Stopwatch
  /** The row that is corrected, where this is a correction. */
  correcting: { id: number; version: number } | null
}

/** A new entry; what is the same from pass to pass carries over. */
export function newEntry(number: number, carried: Partial<Pick<Entry, 'lengthMm' | 'place' | 'batch'>> = {}): Entry {
  return {
    clientId: newId(),
    number,
    lengthMm: null,
    timeS: null,
    current: null,
    voltage: null,
    feed: null,
    flow: null,
    beforeC: null,
    readAt: null,
    place: null,
    depositMm: null,
    layer: null,
    runOutMm: null,
    batch: null,
    remarks: null,
    quenched: false,
    watch: STOPPED,
    correcting: null,
    ...carried,
  }
}

/** The next planned pass that is neither in the log nor on its way there. */
export function nextPass(coupon: Coupon, waiting: readonly WaitingPass[] = []): number {
  const underway = new Set(waiting.map((one) => one.record.number))
  const open = coupon.log.to_weld.find((number) => !underway.has(number))
  return open ?? Math.max(0, ...coupon.rows.map((row) => row.record.number), ...underway) + 1
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
export function recordOf(
  entry: Entry,
  before: PassRecord | null = null,
  planned: Coupon['procedure']['passes'][number] | null = null,
): PassRecord {
  const stopped = total(entry.watch, entry.watch.startedAt ?? 0)
  const stretches = entry.watch.stretches.filter((one) => one > 0)
  const time = entry.timeS ?? (stopped > 0 ? stopped : null)
  const untimed = before !== null && stretches.length === 0 && time === (before.time_s ?? null)
  const flow = reading(entry.flow, before?.gas?.flow_l_min)
  const gas = planned?.gas?.components_percent ?? before?.gas?.components_percent
  return {
    ...(before ?? { side: planned?.side ?? 1, energy_method: 'mean' as const, flags: [] }),
    number: entry.number,
    length_mm: entry.lengthMm,
    time_s: time,
    elapsed_s: untimed ? before.elapsed_s : entry.timeS === null && stretches.length > 1 ? elapsed(entry.watch) : null,
    segments: untimed
      ? before.segments
      : entry.timeS === null && stretches.length > 1
        ? stretches.map((time_s) => ({ time_s }))
        : [],
    current_a: reading(entry.current, before?.current_a),
    voltage_v: reading(entry.voltage, before?.voltage_v),
    wire_feed_m_min: reading(entry.feed, before?.wire_feed_m_min),
    gas: flow !== null && gas ? { components_percent: gas, flow_l_min: flow } : (before?.gas ?? null),
    before_c: entry.beforeC,
    deposit_mm: entry.depositMm,
    layer: entry.layer,
    run_out_mm: entry.runOutMm,
    filler:
      entry.batch !== null ? { ...(before?.filler ?? planned?.filler), batch: entry.batch } : (before?.filler ?? null),
    interpass:
      entry.quenched || entry.place !== null || entry.readAt !== null
        ? { ...before?.interpass, place: entry.place, at: entry.readAt, quenched: entry.quenched }
        : before?.interpass && { ...before.interpass, place: null, at: null, quenched: false },
    remarks: entry.remarks,
  }
}

/** An entry that corrects a logged pass. */
export function entryOf(row: { id: number; version: number; record: PassRecord }): Entry {
  const { record } = row
  return {
    ...newEntry(record.number, { lengthMm: record.length_mm ?? null }),
    timeS: record.time_s ?? null,
    current: spread(record.current_a),
    voltage: spread(record.voltage_v),
    feed: spread(record.wire_feed_m_min),
    flow: spread(record.gas?.flow_l_min),
    beforeC: record.before_c ?? null,
    readAt: record.interpass?.at ?? null,
    place: record.interpass?.place ?? null,
    depositMm: record.deposit_mm ?? null,
    layer: record.layer ?? null,
    runOutMm: record.run_out_mm ?? null,
    batch: record.filler?.batch ?? null,
    remarks: record.remarks ?? null,
    quenched: record.interpass?.quenched ?? false,
    correcting: { id: row.id, version: row.version },
  }
}

/** Whether anything was typed or timed. */
export function isTouched(entry: Entry): boolean {
  return (
    entry.timeS !== null ||
    entry.current !== null ||
    entry.voltage !== null ||
    entry.feed !== null ||
    entry.flow !== null ||
    entry.beforeC !== null ||
    entry.remarks !== null ||
    entry.watch.startedAt !== null ||
    entry.watch.stretches.length > 0
  )
}

/** Heat input while nothing can be asked: E = V·I·t/L with the k that the plan of this pass has. */
export function mirroredHeat(record: PassRecord, coupon: Coupon): number | null {
  const energy = arcEnergyKjMm(
    meanOf(record.voltage_v),
    meanOf(record.current_a),
    record.time_s ?? null,
    record.length_mm ?? null,
  )
  const k = coupon.evaluation.heat_input.find((one) => one.pass_number === record.number)?.k
  return energy === null || k === undefined ? null : energy * k
}
