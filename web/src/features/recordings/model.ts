import type { PassMeasured, Recording } from '../../api/types'

/** A part of a recording, and which pass of the coupon it is. */
export type Part = {
  start_s: number
  end_s: number
  number: number | null
  length_mm: number | null
  found: PassMeasured
}

/** The parts that a recording suggests; those not taken yet get the passes that are still to weld. */
export function partsOf(recording: Recording, toWeld: readonly number[]): Part[] {
  const open = [...toWeld]
  return (recording.analysis?.passes ?? []).map((found) => {
    const taken = recording.taken.find((one) => Math.abs(one.start_s - found.start_s) < 0.5)
    return {
      start_s: found.start_s,
      end_s: found.end_s,
      number: taken?.pass_number ?? open.shift() ?? null,
      length_mm: null,
      found,
    }
  })
}
