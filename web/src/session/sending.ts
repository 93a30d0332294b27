import { t } from '@lingui/core/macro'
import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useEffect, useState, useSyncExternalStore } from 'react'

import { Refusal, api, unwrap } from '../api/client'
import { Outbox, placesOf, type Kept, type OutboxState, type Sent, type Writer } from '../domain/outbox'
import { moveOld, passesOf, weldsOf, type WaitingPass, type WaitingWeld } from '../domain/waiting'
import { sessionQuery } from '../queries/session'

/** How a sending ended, of what the server said to it. */
async function ending(sending: Promise<unknown>): Promise<Sent> {
  try {
    await sending
    return { kind: 'sent' }
  } catch (error) {
    if (!(error instanceof Refusal)) return { kind: 'passing', message: t`The server does not answer.` }
    // An ended session is no refusal, nor is somebody else's: it is sent once its person is signed in again.
    const waits = error.passing || error.status === 401 || error.status === 429 || error.status >= 500
    if (waits || error.body.type === '/problems/other-person') return { kind: 'passing', message: error.message }
    const places = error.body.errors.map((each) => `${each.path}: ${each.message}`).join('; ')
    return {
      kind: 'refused',
      message: error.status === 409 ? error.message : places || error.message,
      conflict: error.status === 409,
    }
  }
}

const sendPass = (couponId: number, one: WaitingPass) =>
  ending(
    unwrap(
      api.POST('/api/coupons/{coupon_id}/passes', {
        params: { path: { coupon_id: couponId } },
        body: {
          client_id: one.clientId,
          record: one.record,
          saved_at: one.savedAt,
          device_time: new Date().toISOString(),
          person_id: one.by?.id ?? null,
        },
      }),
    ),
  )

const sendWeld = (jobId: number, one: WaitingWeld) =>
  ending(
    unwrap(
      api.POST('/api/jobs/{job_id}/welds', {
        params: { path: { job_id: jobId } },
        body: { ...one.entry, person_id: one.by?.id ?? null },
      }),
    ),
  )

/** Whoever is signed in, as the device knows it. */
export function writer(queries: QueryClient): Writer | null {
  const person = queries.getQueryData(sessionQuery.queryKey)?.person
  return person ? { id: person.id, name: person.name } : null
}

// One of each place for the whole page, whoever looks at it: two of them would send the same twice.
const passes = new Map<number, Outbox<WaitingPass>>()
const welds = new Map<number, Outbox<WaitingWeld>>()

export function outboxOfPasses(couponId: number, queries: QueryClient): Outbox<WaitingPass> {
  return one(passes, couponId, () => {
    const reread = async () => {
      await queries.refetchQueries({ queryKey: ['coupon', couponId] })
      void queries.invalidateQueries({ queryKey: ['coupons'] })
    }
    const send = (pass: WaitingPass) => sendPass(couponId, pass)
    return new Outbox(passesOf(couponId), () => writer(queries), send, localStorage, reread)
  })
}

export function outboxOfWelds(jobId: number, queries: QueryClient): Outbox<WaitingWeld> {
  return one(welds, jobId, () => {
    const reread = () => queries.invalidateQueries({ queryKey: ['welds'] })
    const send = (weld: WaitingWeld) => sendWeld(jobId, weld)
    return new Outbox(weldsOf(jobId), () => writer(queries), send, localStorage, reread)
  })
}

function one<K extends Kept>(made: Map<number, Outbox<K>>, id: number, make: () => Outbox<K>): Outbox<K> {
  const found = made.get(id) ?? make()
  made.set(id, found)
  return found
}

export function useOutbox<K extends Kept>(outbox: Outbox<K>): OutboxState<K> {
  return useSyncExternalStore(outbox.subscribe, outbox.snapshot)
}

/** Something that waits on this device, and the page where it is seen. */
export type Underway = { clientId: string; by: Writer | null; refused: boolean; at: string }

/** All that waits on this device. While this is shown it is sent, whichever page is open. */
export function useUnderway(): Underway[] {
  const queries = useQueryClient()
  const [found, setFound] = useState<Underway[]>([])
  useEffect(() => {
    moveOld(localStorage)
    const leaves = new Map<string, () => void>()
    const look = () => {
      const now: Underway[] = []
      const watch = <K extends Kept>(place: string, outbox: Outbox<K>, at: (kept: K) => string) => {
        if (!leaves.has(place)) leaves.set(place, outbox.subscribe(look))
        for (const kept of outbox.snapshot().waiting)
          now.push({ clientId: kept.clientId, by: kept.by, refused: kept.refused !== null, at: at(kept) })
      }
      for (const id of idsOf('pass')) watch(passesOf(id), outboxOfPasses(id, queries), () => `/coupons/${String(id)}`)
      for (const id of idsOf('weld'))
        watch(
          weldsOf(id),
          outboxOfWelds(id, queries),
          (kept) => `/production/joint?mark=${encodeURIComponent(kept.entry.mark)}`,
        )
      setFound(now)
    }
    look()
    const timer = setInterval(look, LOOKS_MS)
    return () => {
      clearInterval(timer)
      for (const leave of leaves.values()) leave()
    }
  }, [queries])
  return found
}

const LOOKS_MS = 2000
const idsOf = (kind: string) => placesOf(localStorage, kind).map((place) => Number(place.split(':')[1]))
