/** A stopwatch of arc time: several stretches add up; what it holds survives a reload. Times in ms. */
export type Stopwatch = {
  stretches: number[]
  startedAt: number | null
  /** The first start and the last stop: elapsed time runs between them, arc time does not. */
  firstAt?: number | null
  lastAt?: number | null
}

export const STOPPED: Stopwatch = { stretches: [], startedAt: null }

/** Start a stretch, or end the running one. `now` is in ms. */
export function toggle(watch: Stopwatch, now: number): Stopwatch {
  if (watch.startedAt === null) return { ...watch, startedAt: now, firstAt: watch.firstAt ?? now }
  const stretch = Math.max((now - watch.startedAt) / 1000, 0)
  return { ...watch, stretches: [...watch.stretches, Math.round(stretch * 10) / 10], startedAt: null, lastAt: now }
}

/** Arc time so far in seconds. */
export function total(watch: Stopwatch, now: number): number {
  const done = watch.stretches.reduce((sum, stretch) => sum + stretch, 0)
  const running = watch.startedAt === null ? 0 : Math.max((now - watch.startedAt) / 1000, 0)
  return Math.round((done + running) * 10) / 10
}

/** Seconds from the first start to the last stop; null before the arc was stopped. */
export function elapsed(watch: Stopwatch): number | null {
  if (watch.firstAt == null || watch.lastAt == null || watch.lastAt <= watch.firstAt) return null
  return Math.round((watch.lastAt - watch.firstAt) / 100) / 10
}
