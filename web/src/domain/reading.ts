import type { PassRecord } from '../api/types'

/** The mean of a reading, whichever way it was written. */
export function meanOf(reading: PassRecord['current_a']): number | null {
  if (reading == null) return null
  return typeof reading === 'number' ? reading : reading.mean
}
