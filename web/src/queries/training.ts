import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'

export const ladderQuery = queryOptions({
  queryKey: ['training'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/training', { signal })),
  staleTime: 0,
})

export const learnersQuery = queryOptions({
  queryKey: ['training-people'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/training/people', { signal })),
  staleTime: 0,
})
