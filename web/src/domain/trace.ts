type Column = (number | null)[]

const GAP_STEPS = 5

/** Nothing is drawn across a hole in the samples: an empty point parts the line there. */
export function withGaps(
  time: readonly number[],
  low: readonly (number | null)[],
  high: readonly (number | null)[],
): [number[], Column, Column] {
  const steps = time
    .slice(1)
    .map((one, at) => one - (time[at] ?? 0))
    .sort((a, b) => a - b)
  const usual = steps[Math.floor(steps.length / 2)] ?? 0
  const [t, l, h]: [number[], Column, Column] = [[], [], []]
  time.forEach((one, at) => {
    const before = time[at - 1]
    if (before !== undefined && one - before > GAP_STEPS * usual) {
      t.push((before + one) / 2)
      l.push(null)
      h.push(null)
    }
    t.push(one)
    l.push(low[at] ?? null)
    h.push(high[at] ?? null)
  })
  return [t, l, h]
}
