import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'

export const peopleQuery = queryOptions({
  queryKey: ['people'],
  queryFn: () => unwrap(api.GET('/api/people')),
  staleTime: 0,
})
