import { keepPreviousData, queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'
import type { CausesIn, System } from '../api/types'

export const symptomsQuery = (words: string) =>
  queryOptions({
    queryKey: ['symptoms', words],
    queryFn: ({ signal }) => unwrap(api.GET('/api/faults/symptoms', { params: { query: { words } }, signal })),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
    retry: false,
  })

export const passKnownQuery = (id: number, units: System) =>
  queryOptions({
    queryKey: ['pass-known', id, units],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/faults/passes/{pass_id}', { params: { path: { pass_id: id }, query: { units } }, signal })),
    staleTime: 0,
  })

export const causesQuery = (body: CausesIn) =>
  queryOptions({
    queryKey: ['causes', body],
    queryFn: ({ signal }) => unwrap(api.POST('/api/faults/causes', { body, signal })),
    placeholderData: keepPreviousData,
    staleTime: 0,
    retry: false,
  })

export const curesQuery = queryOptions({
  queryKey: ['cures'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/faults/cures', { signal })),
  staleTime: 0,
})

export const wordsQuery = queryOptions({
  queryKey: ['symptom-words'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/faults/words', { signal })),
  staleTime: 0,
})
