import { useMutation, useQueryClient } from '@tanstack/react-query'

import { api, Refusal, unwrap } from '../../api/client'

type Asked = { kind: 'release'; id: number } | { kind: 'strike' | 'strike-result'; id: number; reason: string }

/** Release a weld, strike an entry or a result; what stands against it is said with each reason. */
export function useWeldAction() {
  const queries = useQueryClient()
  const action = useMutation({
    mutationFn: (asked: Asked) => {
      if (asked.kind === 'release')
        return unwrap(api.POST('/api/welds/{weld_id}/release', { params: { path: { weld_id: asked.id } } }))
      const body = { reason: asked.reason }
      if (asked.kind === 'strike')
        return unwrap(api.POST('/api/welds/{weld_id}/strike', { params: { path: { weld_id: asked.id } }, body }))
      return unwrap(
        api.POST('/api/welds/results/{result_id}/strike', { params: { path: { result_id: asked.id } }, body }),
      )
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ['welds'] }),
  })
  const more = action.error instanceof Refusal ? action.error.body.errors.map((one) => one.message) : []
  return { ...action, said: [action.error?.message ?? '', ...more].join(' ') }
}
