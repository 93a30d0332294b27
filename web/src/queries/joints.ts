import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'

const path = (jobId: number) => ({ params: { path: { job_id: jobId } } })

export const weldListQuery = (jobId: number) =>
  queryOptions({
    queryKey: ['weld-list', jobId],
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}/weld-list', path(jobId))),
    staleTime: 0,
  })

export const listCoverageQuery = (jobId: number, units: 'si' | 'us') =>
  queryOptions({
    queryKey: ['weld-list', jobId, 'coverage', units],
    queryFn: () =>
      unwrap(
        api.GET('/api/jobs/{job_id}/weld-list/coverage', {
          params: { path: { job_id: jobId }, query: { units } },
        }),
      ),
    staleTime: 0,
    retry: false,
  })

/** The last search for coupons that anybody asked for; null where there is none. */
export const lastSearchQuery = (jobId: number, units: 'si' | 'us') =>
  queryOptions({
    queryKey: ['weld-list', jobId, 'search', units],
    queryFn: () =>
      unwrap(
        api.GET('/api/jobs/{job_id}/weld-list/coupons', {
          params: { path: { job_id: jobId }, query: { units } },
        }),
      ),
    staleTime: 0,
    retry: false,
  })

export const listWpsQuery = (jobId: number, units: 'si' | 'us') =>
  queryOptions({
    queryKey: ['weld-list', jobId, 'wps', units],
    queryFn: () =>
      unwrap(
        api.GET('/api/jobs/{job_id}/weld-list/procedures', {
          params: { path: { job_id: jobId }, query: { units } },
        }),
      ),
    staleTime: 0,
    retry: false,
  })

export const listTotalsQuery = (jobId: number) =>
  queryOptions({
    queryKey: ['weld-list', jobId, 'totals'],
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}/weld-list/totals', path(jobId))),
    staleTime: 0,
    retry: false,
  })

export const whyQuery = (jobId: number, key: string) =>
  queryOptions({
    queryKey: ['weld-list', jobId, 'why', key],
    queryFn: () =>
      unwrap(api.GET('/api/jobs/{job_id}/weld-list/types/{key}/why', { params: { path: { job_id: jobId, key } } })),
    staleTime: 0,
  })
