import type { PassRecord, WeldIn } from '../api/types'
import type { Kept, Shelf } from './outbox'

/** A pass that is saved here and not at the server yet. */
export type WaitingPass = Kept & { record: PassRecord }

/** A production weld that is saved here and not at the server yet. */
export type WaitingWeld = Kept & { entry: WeldIn }

export const passesOf = (couponId: number) => `pass:${String(couponId)}`
export const weldsOf = (jobId: number) => `weld:${String(jobId)}`

/** Bring passes that an older page kept under one key to a place of their own; who saved them is not known. */
export function moveOld(store: Shelf): void {
  for (let at = store.length - 1; at >= 0; at--) {
    const key = store.key(at)
    const found = /^passes-(\d+)$/.exec(key ?? '')
    if (!key || !found) continue
    try {
      const old = JSON.parse(store.getItem(key) ?? '[]') as WaitingPass[]
      old.forEach((one, order) => {
        const place = `${passesOf(Number(found[1]))}:${one.clientId}`
        store.setItem(place, JSON.stringify({ ...one, by: null, order }))
      })
      store.removeItem(key)
    } catch {
      // Full, or not readable: it stays where it is.
    }
  }
}
