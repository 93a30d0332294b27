import { t } from '@lingui/core/macro'
import { useMutation } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { PrintRun } from '../../api/types'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { toItsEnd } from './following'
import { WorkProgress } from './WorkProgress'

type Props = {
  jobId: number
  what: PrintRun['what']
  /** How many there are, and how many the server sets while somebody waits. */
  count: number
  atOnce: number
  direct: string
  words: string
}

/** A link to the sheets of a list; where there are many, a button that has them set beside the pages. */
export function PrintAll({ jobId, what, count, atOnce, direct, words }: Props) {
  const units = useUnits().system
  const [going, setGoing] = useState<PrintRun | null>(null)
  const leaving = useRef<AbortController>(null)
  useEffect(() => () => leaving.current?.abort(), [])
  const print = useMutation({
    mutationFn: async () => {
      leaving.current = new AbortController()
      const { signal } = leaving.current
      const path = { job_id: jobId }
      const body = { what, units, paper: 'a4' as const, second: '' as const }
      const started = await unwrap(api.POST('/api/jobs/{job_id}/joints/print-runs', { params: { path }, body, signal }))
      const one = { params: { path: { ...path, run_id: started.id } }, signal }
      const look = () => unwrap(api.GET('/api/jobs/{job_id}/joints/print-runs/{run_id}', one))
      return toItsEnd(started, look, setGoing, signal)
    },
    onSettled: () => setGoing(null),
  })
  const stop = useMutation({
    mutationFn: (run: PrintRun) =>
      unwrap(
        api.POST('/api/jobs/{job_id}/joints/print-runs/{run_id}/stop', {
          params: { path: { job_id: jobId, run_id: run.id } },
        }),
      ),
  })
  if (count <= atOnce) {
    return (
      <a className="link" href={direct} target="_blank" rel="noreferrer">
        {words}
      </a>
    )
  }
  if (print.isPending) {
    return (
      <span className="flex min-w-80 flex-wrap items-center gap-3">
        <WorkProgress
          words={going?.state === 'waiting' ? t`Waiting for its turn` : words}
          done={going?.done ?? 0}
          of={going?.of ?? 0}
          stopWords={t`Stop`}
          stopping={stop.isPending || going === null}
          onStop={() => going && stop.mutate(going)}
        />
      </span>
    )
  }
  const run = print.data
  if (run?.state === 'done') {
    const id = String(run.id)
    return (
      <a
        className="link font-semibold"
        href={`/api/jobs/${String(jobId)}/joints/print-runs/${id}/file`}
        target="_blank"
        rel="noreferrer"
      >
        {what === 'sheets' ? t`Open the ${count} booth sheets (PDF)` : t`Open the ${count} joint cards (PDF)`}
      </a>
    )
  }
  return (
    <span className="flex flex-wrap items-center gap-3">
      <Button onClick={() => print.mutate()}>
        {words} ({count})
      </Button>
      {print.isError && <Notice mark="breach">{print.error.message}</Notice>}
      {stop.isError && <Notice mark="breach">{stop.error.message}</Notice>}
    </span>
  )
}
