import { queryOptions, skipToken } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'
import type { Procedure } from '../api/types'

export const evidenceQuery = (id: number) =>
  queryOptions({
    queryKey: ['evidence', id],
    queryFn: () => unwrap(api.GET('/api/coupons/{coupon_id}/evidence', { params: { path: { coupon_id: id } } })),
    staleTime: 0,
  })

export const rangesQuery = (id: number) =>
  queryOptions({
    queryKey: ['ranges', id],
    queryFn: () => unwrap(api.GET('/api/coupons/{coupon_id}/ranges', { params: { path: { coupon_id: id } } })),
    staleTime: 0,
  })

export const stageQuery = (id: number) =>
  queryOptions({
    queryKey: ['stage', id],
    queryFn: () => unwrap(api.GET('/api/revisions/{revision_id}/stage', { params: { path: { revision_id: id } } })),
    staleTime: 0,
  })

/** Nothing is asked without a procedure. */
export const draftCoverageQuery = (jobId: number, procedure: Procedure | null) =>
  queryOptions({
    queryKey: ['draft-coverage', jobId, procedure],
    queryFn: procedure
      ? ({ signal }) =>
          unwrap(
            api.POST('/api/jobs/{job_id}/coverage', {
              params: { path: { job_id: jobId } },
              body: { procedure },
              signal,
            }),
          )
      : skipToken,
    staleTime: 10_000,
    gcTime: 20_000,
    retry: false,
  })

export const bookQuery = (code: string, row: string) =>
  queryOptions({
    queryKey: ['book', 'part', code, row],
    queryFn: () => unwrap(api.GET('/api/book', { params: { query: { code, row } } })),
    staleTime: 0,
  })

export const touchedQuery = queryOptions({
  queryKey: ['book', 'touched'],
  queryFn: () => unwrap(api.GET('/api/book/touched')),
  staleTime: 0,
})
