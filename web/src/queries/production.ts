import { keepPreviousData, queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'
import type { WeldsAsked } from '../api/types'

export const weldsQuery = (jobId: number, asked: WeldsAsked) =>
  queryOptions({
    queryKey: ['welds', jobId, 'log', asked],
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}/welds', { params: { path: { job_id: jobId }, query: asked } })),
    placeholderData: keepPreviousData,
    staleTime: 0,
  })

export const weldQuery = (weldId: number, units: 'si' | 'us') =>
  queryOptions({
    queryKey: ['welds', 'one', weldId, units],
    queryFn: () => unwrap(api.GET('/api/welds/{weld_id}', { params: { path: { weld_id: weldId }, query: { units } } })),
    staleTime: 0,
  })

export const jointToLogQuery = (jobId: number, mark: string, units: 'si' | 'us') =>
  queryOptions({
    queryKey: ['welds', jobId, 'joint', mark, units],
    queryFn: () =>
      unwrap(
        api.GET('/api/jobs/{job_id}/welds/joint', { params: { path: { job_id: jobId }, query: { mark, units } } }),
      ),
    staleTime: 0,
  })

export type RateBy = 'welder' | 'wps' | 'position' | 'month'
export const ratesQuery = (jobId: number, by: RateBy, method: '' | 'VT' | 'PT' | 'MT' | 'RT' | 'UT') =>
  queryOptions({
    queryKey: ['welds', jobId, 'rates', by, method],
    queryFn: () =>
      unwrap(api.GET('/api/jobs/{job_id}/welds/rates', { params: { path: { job_id: jobId }, query: { by, method } } })),
    placeholderData: keepPreviousData,
    staleTime: 0,
  })

export const registerQuery = (jobId: number) =>
  queryOptions({
    queryKey: ['welds', jobId, 'register'],
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}/register', { params: { path: { job_id: jobId } } })),
    staleTime: 0,
  })

export const dossierQuery = (jobId: number) =>
  queryOptions({
    queryKey: ['welds', jobId, 'dossier'],
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}/dossier', { params: { path: { job_id: jobId } } })),
    staleTime: 0,
  })
