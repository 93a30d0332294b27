/** Whether the server answered the last time that it was asked. */
let reached = true
const listeners = new Set<() => void>()

/** Note an answer, or that none came. */
export function noteAnswer(came: boolean): void {
  if (came === reached) return
  reached = came
  for (const listener of listeners) listener()
}

export const isReached = (): boolean => reached

export function onReached(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** A proxy answers for a server that is away. */
export const isAnswer = (status: number): boolean => status !== 502 && status !== 503 && status !== 504
