import { useMutation, useQueryClient } from '@tanstack/react-query'

import { api, Refusal, unwrap } from '../../api/client'
import type { ListWps } from '../../api/types'
import { listWpsQuery } from '../../queries/joints'
import { useUnits } from '../../session/units'

export type Assign = {
  /** WPSs by joint type; `null` takes an assignment back. */
  save: (wanted: Record<string, number | null>) => void
  /** Take back an assignment whose joints are gone. */
  drop: (assignmentId: number) => void
  pending: boolean
  error: string
}

/** Assign WPSs; somebody else's assignment of the meantime is shown and not overwritten. */
export function useAssign(jobId: number, table: ListWps | undefined): Assign {
  const queries = useQueryClient()
  const { system } = useUnits()
  const key = listWpsQuery(jobId, system).queryKey
  const settled = {
    onSuccess: (next: ListWps) => {
      queries.setQueryData(key, next)
    },
    onError: () => queries.invalidateQueries({ queryKey: key }),
  }
  const save = useMutation({
    mutationFn: (wanted: Record<string, number | null>) =>
      unwrap(
        api.PUT('/api/jobs/{job_id}/weld-list/assignments', {
          params: { path: { job_id: jobId }, query: { units: system } },
          body: {
            version: table?.version ?? 0,
            assign: wanted,
            before: Object.fromEntries(
              (table?.types ?? []).filter((one) => one.key in wanted).map((one) => [one.key, one.assigned]),
            ),
          },
        }),
      ),
    ...settled,
  })
  const drop = useMutation({
    mutationFn: (id: number) =>
      unwrap(
        api.DELETE('/api/jobs/{job_id}/weld-list/assignments/{assignment_id}', {
          params: { path: { job_id: jobId, assignment_id: id }, query: { units: system } },
        }),
      ),
    ...settled,
  })
  return {
    save: save.mutate,
    drop: drop.mutate,
    pending: save.isPending || drop.isPending,
    error: said(save.error) || said(drop.error),
  }
}

function said(error: Error | null): string {
  if (!error) return ''
  const more = error instanceof Refusal ? error.body.errors.map((one) => `${one.path}: ${one.message}`) : []
  return [error.message, ...more].join(' ')
}
