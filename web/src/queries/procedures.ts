import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'
import type { Procedure, System } from '../api/types'

export const proceduresQuery = (jobId: number) =>
  queryOptions({
    queryKey: ['procedures', jobId],
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}/procedures', { params: { path: { job_id: jobId } } })),
  })

export const revisionQuery = (id: number, units: System) =>
  queryOptions({
    queryKey: ['revision', id],
    queryFn: () =>
      unwrap(api.GET('/api/revisions/{revision_id}', { params: { path: { revision_id: id }, query: { units } } })),
    staleTime: 0,
    refetchOnWindowFocus: false,
  })

export const historyQuery = (id: number) =>
  queryOptions({
    queryKey: ['history', id],
    queryFn: () => unwrap(api.GET('/api/revisions/{revision_id}/history', { params: { path: { revision_id: id } } })),
    staleTime: 0,
  })

export const evaluationQuery = (document: Procedure, units: System) =>
  queryOptions({
    queryKey: ['evaluate', units, document],
    queryFn: ({ signal }) => unwrap(api.POST('/api/evaluate', { body: { document, units }, signal })),
    staleTime: Infinity,
    gcTime: 20_000,
  })

/** Fields of a pass that only some processes have, and this one does. */
export const setupFieldsQuery = (process: string, polarity: string | null, transfer: string | null) =>
  queryOptions({
    queryKey: ['setup-fields', process, polarity, transfer],
    queryFn: () =>
      unwrap(
        api.GET('/api/setup-fields', {
          params: { query: { process, ...(polarity ? { polarity } : {}), ...(transfer ? { transfer } : {}) } },
        }),
      ),
    enabled: process !== '',
    staleTime: Infinity,
  })

export const carriesQuery = (
  diameter_mm: number,
  polarity: 'DCEN' | 'DCEP' | 'AC',
  type_text: string,
  en_share: number | null,
) =>
  queryOptions({
    queryKey: ['tungsten-carries', diameter_mm, polarity, type_text, en_share],
    queryFn: () =>
      unwrap(
        api.GET('/api/tungsten-carries', {
          params: { query: { diameter_mm, polarity, type_text, ...(en_share === null ? {} : { en_share }) } },
        }),
      ),
    staleTime: Infinity,
  })

export const tungstensQuery = queryOptions({
  queryKey: ['tungstens'],
  queryFn: () => unwrap(api.GET('/api/tungstens')),
  staleTime: Infinity,
})

export const chartsBesideQuery = (document: Procedure, units: System) =>
  queryOptions({
    queryKey: ['charts-beside', document, units],
    queryFn: ({ signal }) => unwrap(api.POST('/api/charts-beside', { body: { document, units }, signal })),
    gcTime: 20_000,
    retry: false,
  })

export const heatChartQuery = (document: Procedure, pass_number: number) =>
  queryOptions({
    queryKey: ['heat-chart', document, pass_number],
    queryFn: ({ signal }) => unwrap(api.POST('/api/heat-chart', { body: { document, pass_number }, signal })),
    staleTime: Infinity,
    gcTime: 20_000,
    retry: false,
  })
