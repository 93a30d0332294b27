import { t } from '@lingui/core/macro'
import { useQueryClient } from '@tanstack/react-query'
import { useState, useSyncExternalStore } from 'react'

import { Refusal, api, unwrap } from '../../api/client'
import { PassQueue, type QueueState, type Sent, type Waiting } from '../../domain/passQueue'

async function send(couponId: number, one: Waiting): Promise<Sent> {
  try {
    await unwrap(
      api.POST('/api/coupons/{coupon_id}/passes', {
        params: { path: { coupon_id: couponId } },
        body: {
          client_id: one.clientId,
          record: one.record,
          saved_at: one.savedAt,
          device_time: new Date().toISOString(),
        },
      }),
    )
    return { kind: 'sent' }
  } catch (error) {
    if (!(error instanceof Refusal)) return { kind: 'passing', message: t`The server does not answer.` }
    // An ended session is no refusal: the pass is sent once someone is signed in again.
    if (error.passing || error.status === 401 || error.status >= 500) return { kind: 'passing', message: error.message }
    const places = error.body.errors.map((each) => `${each.path}: ${each.message}`).join('; ')
    return {
      kind: 'refused',
      message: error.status === 409 ? error.message : places || error.message,
      conflict: error.status === 409,
    }
  }
}

/** The passes of this coupon that are on their way to the server. */
export function useQueue(couponId: number): QueueState & { queue: PassQueue } {
  const queries = useQueryClient()
  const [queue] = useState(
    () =>
      new PassQueue(
        couponId,
        (one) => send(couponId, one),
        localStorage,
        async () => {
          await queries.refetchQueries({ queryKey: ['coupon', couponId] })
          void queries.invalidateQueries({ queryKey: ['coupons'] })
        },
      ),
  )
  const state = useSyncExternalStore(queue.subscribe, queue.snapshot)
  return { ...state, queue }
}
