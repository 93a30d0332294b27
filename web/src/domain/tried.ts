import type { BeadSettings, Range } from '../api/types'

/** A setting that was tried, on its way to the trial weld. */
export type Tried = {
  number: number
  current: Range | null
  voltage: Range | null
  feed: Range | null
  flow: Range | null
}

const as = (value: number | null | undefined): Range | null => (value == null ? null : { min: value, max: value })

/** What of a tried setting the trial weld records. */
export function triedOf(number: number, settings: BeadSettings): Tried {
  return {
    number,
    current: as(settings.current_a),
    voltage: as(settings.voltage_v),
    feed: as(settings.wire_feed_m_min),
    flow: as(settings.gas_flow_l_min),
  }
}

/** A tried setting from the history of the browser, which may hold anything. */
export function readTried(state: unknown): Tried | null {
  const tried = (state as { tried?: Tried } | null)?.tried
  return tried && typeof tried.number === 'number' ? tried : null
}
