import { api, unwrap } from '../../api/client'
import type { CouponPlan, CouponSearch, WeldList } from '../../api/types'

export type Asked = { keep: readonly string[]; without: readonly string[]; code?: WeldList['code'] }
export type Found = { search: CouponSearch; plan: CouponPlan }
type Where = { jobId: number; units: 'si' | 'us'; signal?: AbortSignal }

const SOON_MS = 250
const LATER_MS = 1500

/** Ask for the cheapest coupons, and follow the search to its end; see `followed`. */
export async function searchCoupons(where: Where, asked: Asked, told: (search: CouponSearch) => void) {
  const search = await unwrap(
    api.POST('/api/jobs/{job_id}/weld-list/coupons', {
      params: { path: { job_id: where.jobId }, query: { units: where.units } },
      body: { keep: [...asked.keep], without: [...asked.without], ...(asked.code && { code: asked.code }) },
      signal: where.signal,
    }),
  )
  return followed(where, search, told)
}

/** Look at a search until it ends: what it found, or nothing where somebody stopped it. */
export async function followed(
  { jobId, units, signal }: Where,
  started: CouponSearch,
  told: (search: CouponSearch) => void,
): Promise<Found | null> {
  let search = started
  for (let wait = SOON_MS; isGoingOn(search); wait = Math.min(wait * 1.5, LATER_MS)) {
    told(search)
    await new Promise((resolve) => setTimeout(resolve, wait))
    signal?.throwIfAborted()
    search = await unwrap(
      api.GET('/api/jobs/{job_id}/weld-list/coupons/{search_id}', {
        params: { path: { job_id: jobId, search_id: search.id }, query: { units } },
        signal,
      }),
    )
  }
  if (search.state === 'failed') throw new Error(search.problem)
  return search.plan ? { search, plan: search.plan } : null
}

export const isGoingOn = (search: CouponSearch) => search.state === 'waiting' || search.state === 'running'
