import { api, unwrap } from '../../api/client'
import type { CouponPlan, CouponSearch, WeldList } from '../../api/types'
import { toItsEnd } from './following'

export type Asked = { keep: readonly string[]; without: readonly string[]; code?: WeldList['code'] }
export type Found = { search: CouponSearch; plan: CouponPlan }
type Where = { jobId: number; units: 'si' | 'us'; signal?: AbortSignal }

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
  const look = () =>
    unwrap(
      api.GET('/api/jobs/{job_id}/weld-list/coupons/{search_id}', {
        params: { path: { job_id: jobId, search_id: started.id }, query: { units } },
        signal,
      }),
    )
  const search = await toItsEnd(started, look, told, signal)
  return search.plan ? { search, plan: search.plan } : null
}
