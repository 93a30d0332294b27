/** A stopwatch of arc time: several stretches add up; what it holds survives a reload. */
export type Stopwatch = { stretches: number[]; startedAt: number | null }

export const STOPPED: Stopwatch = { stretches: [], startedAt: null }

/** Start a stretch, or end the running one. `now` is in ms. */
export function toggle(watch: Stopwatch, now: number): Stopwatch {
  if (watch.startedAt === null) return { ...watch, startedAt: now }
  const stretch = Math.max((now - watch.startedAt) / 1000, 0)
  return { stretches: [...watch.stretches, Math.round(stretch * 10) / 10], startedAt: null }
}

/** Arc time so far in seconds. */
export function total(watch: Stopwatch, now: number): number {
  const done = watch.stretches.reduce((sum, stretch) => sum + stretch, 0)
  const running = watch.startedAt === null ? 0 : Math.max((now - watch.startedAt) / 1000, 0)
  return Math.round((done + running) * 10) / 10
}
