import type { QueryClient } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'
import type { Joints, System } from '../api/types'
import { SHEETS, sheetOf } from '../domain/sheets'
import { couponQuery, couponsQuery } from '../queries/coupons'
import { curesQuery, symptomsQuery, wordsQuery } from '../queries/faults'
import { recordsQuery } from '../queries/library'
import { proceduresQuery } from '../queries/procedures'
import { jointToLogQuery } from '../queries/production'
import { TAKEN, keepRead } from './kept'

/** What of a job was read for work without a network, and when. */
export type Taken = { job: string; at: string; coupons: number; sheets: number; joints: number; missed: number }

const AT_A_TIME = 4

/** What was taken along last on this device. */
export function lastTaken(): Taken | null {
  try {
    return JSON.parse(localStorage.getItem(TAKEN) ?? 'null') as Taken | null
  } catch {
    return null
  }
}

/**
 * Read what a job needs at the booth: coupons being welded, the sheets of released WPS, joints that are to be
 * welded, and the fault finder. What cannot be read is counted, not passed over.
 */
export async function takeAlong(
  queries: QueryClient,
  job: { id: number; number: string },
  units: System,
  told: (done: number, of: number) => void,
): Promise<Taken> {
  const now = { staleTime: 0 }
  const [coupons, procedures] = await Promise.all([
    queries.fetchQuery({ ...couponsQuery(job.id), ...now }),
    queries.fetchQuery({ ...proceduresQuery(job.id), ...now }),
    queries.fetchQuery({ ...recordsQuery('machine'), ...now }),
    queries.fetchQuery({ ...curesQuery, ...now }),
    queries.fetchQuery({ ...wordsQuery, ...now }),
    queries.fetchQuery({ ...symptomsQuery(''), ...now }),
  ])
  const count = { coupons: 0, sheets: 0, joints: await takeJoints(queries, job.id, units) }
  // Browsers keep sheets under an encrypted address only.
  const kept = 'caches' in window ? await caches.open(SHEETS) : null
  for (const old of (await kept?.keys()) ?? []) await kept?.delete(old)
  const steps: [keyof typeof count, () => Promise<unknown>][] = [
    ...coupons
      .filter((one) => one.status === 'welding')
      .map((one): [keyof typeof count, () => Promise<unknown>] => [
        'coupons',
        () => queries.fetchQuery({ ...couponQuery(one.id, units), ...now }),
      ]),
    ...procedures
      .filter((one) => kept !== null && one.stage === 'released')
      .map((one): [keyof typeof count, () => Promise<unknown>] => [
        'sheets',
        async () => {
          const { response, data } = await api.GET('/api/revisions/{revision_id}/print', {
            params: { path: { revision_id: one.id } },
            parseAs: 'blob',
          })
          if (!response.ok) await unwrap(Promise.resolve({ response, error: null }))
          await kept?.put(sheetOf(one.id), new Response(data as unknown as Blob, { headers: response.headers }))
        },
      ]),
  ]
  let done = 0
  let missed = 0
  const next = steps.values()
  await Promise.all(
    Array.from({ length: AT_A_TIME }, async () => {
      for (const [kind, step] of next) {
        try {
          await step()
          count[kind] += 1
        } catch {
          missed += 1
        }
        told(++done, steps.length)
      }
    }),
  )
  await keepRead(queries)
  const taken = { job: job.number, at: new Date().toISOString(), ...count, missed }
  localStorage.setItem(TAKEN, JSON.stringify(taken))
  return taken
}

/** Joints of which something is left to weld; how many. */
async function takeJoints(queries: QueryClient, jobId: number, units: System): Promise<number> {
  let count = 0
  for (let start: number | null = 0; start !== null;) {
    const part: Joints = await unwrap(
      api.GET('/api/jobs/{job_id}/welds/joints', { params: { path: { job_id: jobId }, query: { start, units } } }),
    )
    for (const one of part.joints) queries.setQueryData(jointToLogQuery(jobId, one.mark, units).queryKey, one)
    count += part.joints.length
    start = part.next
  }
  return count
}
