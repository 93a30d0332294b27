import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'

export type RecordKind = 'metal' | 'product' | 'machine' | 'chart'
export type ListedKind = 'metal' | 'filler' | 'gas' | 'tungsten'

export const metalsQuery = (text: string) =>
  queryOptions({
    queryKey: ['library', 'metals', text],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/metals', { params: { query: { search_text: text, most: 1000 } }, signal })),
    staleTime: 60_000,
  })

export const fillersQuery = (text: string) =>
  queryOptions({
    queryKey: ['library', 'fillers', text],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/fillers', { params: { query: { search_text: text, most: 200 } }, signal })),
    staleTime: 60_000,
  })

export const gasesQuery = (text: string) =>
  queryOptions({
    queryKey: ['library', 'gases', text],
    queryFn: ({ signal }) => unwrap(api.GET('/api/gases', { params: { query: { search_text: text } }, signal })),
    staleTime: Infinity,
  })

export const recordsQuery = (kind: RecordKind) =>
  queryOptions({
    queryKey: ['library', 'records', kind],
    queryFn: () => unwrap(api.GET('/api/library', { params: { query: { kind } } })),
    select: (rows) => rows.filter((one) => one.document !== null),
    staleTime: 10_000,
  })

/** Records that cannot be read: named, and the rest stands. */
export const damagedQuery = (kind: RecordKind) =>
  queryOptions({ ...recordsQuery(kind), select: (rows) => rows.filter((one) => one.document === null) })

export const recordUsedQuery = (id: number) =>
  queryOptions({
    queryKey: ['library', 'used', id],
    queryFn: () => unwrap(api.GET('/api/library/{record_id}/used', { params: { path: { record_id: id } } })),
    staleTime: 0,
  })

export const listedUsedQuery = (kind: ListedKind, name: string) =>
  queryOptions({
    queryKey: ['library', 'listed-used', kind, name],
    queryFn: () => unwrap(api.GET('/api/used', { params: { query: { kind, name } } })),
    staleTime: 0,
  })
