type Work = { state: 'waiting' | 'running' | 'done' | 'failed' | 'stopped'; problem: string }

const SOON_MS = 250
const LATER_MS = 1500

export const isGoingOn = (work: Work) => work.state === 'waiting' || work.state === 'running'

/** Look at work that the server does beside its pages until it ends; work that failed is an error. */
export async function toItsEnd<T extends Work>(
  started: T,
  look: () => Promise<T>,
  told: (work: T) => void,
  signal?: AbortSignal,
): Promise<T> {
  let work = started
  for (let wait = SOON_MS; isGoingOn(work); wait = Math.min(wait * 1.5, LATER_MS)) {
    told(work)
    await new Promise((resolve) => setTimeout(resolve, wait))
    signal?.throwIfAborted()
    work = await look()
  }
  if (work.state === 'failed') throw new Error(work.problem)
  return work
}
