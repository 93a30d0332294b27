import { useQuery } from '@tanstack/react-query'
import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from 'react'

import type { Job } from '../api/types'
import { jobsQuery } from '../queries/session'

type JobState = {
  jobs: Job[] | undefined
  job: Job | undefined
  choose: (id: number) => void
  error: Error | null
}

const Context = createContext<JobState | null>(null)

/** Keeps the job that is open: chosen once for this browser, the first one until then. */
export function JobProvider({ children }: { children: ReactNode }) {
  const jobs = useQuery(jobsQuery)
  const [chosen, setChosen] = useState(() => Number(localStorage.getItem('job')))
  const choose = useCallback((id: number) => {
    localStorage.setItem('job', String(id))
    setChosen(id)
  }, [])
  const state = useMemo<JobState>(
    () => ({
      jobs: jobs.data,
      job: jobs.data?.find((one) => one.id === chosen) ?? jobs.data?.[0],
      choose,
      error: jobs.error,
    }),
    [jobs.data, jobs.error, chosen, choose],
  )
  return <Context value={state}>{children}</Context>
}

export function useJob(): JobState {
  const state = useContext(Context)
  if (!state) throw new Error('JobProvider is missing')
  return state
}

/** A page that belongs to a job opens that job with it. */
export function useJobOf(id: number): void {
  const { choose } = useJob()
  useEffect(() => choose(id), [choose, id])
}
