import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: () => unwrap(api.GET('/api/session')),
  staleTime: Infinity,
})

export const unitsQuery = queryOptions({
  queryKey: ['units'],
  queryFn: () => unwrap(api.GET('/api/units')),
  staleTime: Infinity,
})

export const codesQuery = queryOptions({
  queryKey: ['codes'],
  queryFn: () => unwrap(api.GET('/api/codes')),
  staleTime: Infinity,
})

export const termsQuery = queryOptions({
  queryKey: ['terms'],
  queryFn: () => unwrap(api.GET('/api/terms')),
  staleTime: Infinity,
})

export const jobsQuery = queryOptions({
  queryKey: ['jobs'],
  queryFn: () => unwrap(api.GET('/api/jobs')),
  staleTime: 60_000,
})
