import type { Bracket, Range } from '../api/types'

const NO_LIMIT = 100_000

/** Qualified ranges of one pass, by field; an open end is no limit. */
export function qualifiedOf(brackets: readonly Bracket[], index: number): Record<string, Range> {
  const before = `passes.${index}.`
  return Object.fromEntries(
    brackets
      .filter((one) => one.path.startsWith(before))
      .map((one) => [one.path.slice(before.length), { min: one.min ?? 0, max: one.max ?? NO_LIMIT }]),
  )
}
