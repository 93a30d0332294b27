import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'
import type { PassRecord, System } from '../api/types'

export const couponsQuery = (jobId: number) =>
  queryOptions({
    queryKey: ['coupons', jobId],
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}/coupons', { params: { path: { job_id: jobId } } })),
  })

export const couponQuery = (id: number, units: System) =>
  queryOptions({
    queryKey: ['coupon', id, units],
    queryFn: () =>
      unwrap(api.GET('/api/coupons/{coupon_id}', { params: { path: { coupon_id: id }, query: { units } } })),
    staleTime: 0,
    // Two people may log one coupon: each sees the other's passes within seconds.
    refetchInterval: 5000,
  })

export const judgeQuery = (id: number, record: PassRecord, units: System) =>
  queryOptions({
    queryKey: ['judge', id, units, record],
    queryFn: ({ signal }) =>
      unwrap(
        api.POST('/api/coupons/{coupon_id}/judge', {
          params: { path: { coupon_id: id } },
          body: { record, units },
          signal,
        }),
      ),
    staleTime: Infinity,
    gcTime: 20_000,
    retry: false,
  })
