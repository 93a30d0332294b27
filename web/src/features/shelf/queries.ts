import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../../api/client'

export const shelfQuery = (text: string) =>
  queryOptions({
    queryKey: ['shelf', text],
    queryFn: ({ signal }) => unwrap(api.GET('/api/metals', { params: { query: { search_text: text, most: 300 } }, signal })),
    staleTime: Infinity,
  })
