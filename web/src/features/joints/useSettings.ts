import { useMutation, useQueryClient } from '@tanstack/react-query'

import { api, unwrap } from '../../api/client'
import type { WeldList } from '../../api/types'
import { weldListQuery } from '../../queries/joints'

type Settings = Partial<Pick<WeldList, 'code' | 'answers' | 'shop' | 'prices'>>

/** Save what holds for the whole list; what is not named stays as it stands. */
export function useSettings(jobId: number, list: WeldList, onSaved?: () => void) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (changed: Settings) =>
      unwrap(
        api.PUT('/api/jobs/{job_id}/weld-list', {
          params: { path: { job_id: jobId } },
          body: {
            version: list.version,
            code: list.code,
            answers: list.answers,
            shop: list.shop,
            prices: list.prices,
            ...changed,
          },
        }),
      ),
    onSuccess: (next) => {
      onSaved?.()
      queries.setQueryData(weldListQuery(jobId).queryKey, next)
      void queries.invalidateQueries({ queryKey: ['weld-list', jobId, 'coverage'] })
      void queries.invalidateQueries({ queryKey: ['weld-list', jobId, 'search'] })
    },
  })
}
