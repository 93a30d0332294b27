import { keepPreviousData, queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'

export const recordingsQuery = (couponId: number) =>
  queryOptions({
    queryKey: ['recordings', couponId],
    queryFn: () =>
      unwrap(api.GET('/api/coupons/{coupon_id}/recordings', { params: { path: { coupon_id: couponId } } })),
    refetchInterval: 5000,
  })

export const recordersQuery = queryOptions({
  queryKey: ['recorders'],
  queryFn: () => unwrap(api.GET('/api/recorders')),
})

export const recordingQuery = (id: number) =>
  queryOptions({
    queryKey: ['recording', id],
    queryFn: () => unwrap(api.GET('/api/recordings/{recording_id}', { params: { path: { recording_id: id } } })),
    refetchInterval: (query) => (query.state.data?.status === 'streaming' ? 2000 : false),
  })

export type Span = { start_s: number; end_s: number } | null

export const traceQuery = (id: number, version: number, span: Span) =>
  queryOptions({
    queryKey: ['trace', id, version, span],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/recordings/{recording_id}/trace', {
          params: { path: { recording_id: id }, query: { ...(span ?? {}), most: 900 } },
          signal,
        }),
      ),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  })
