/** One place where two documents differ. */
export type Difference = { path: string; mine: string; theirs: string }

/** Every leaf that differs between two JSON values; absent and null count as the same. */
export function differences(mine: unknown, theirs: unknown, path = ''): Difference[] {
  if (isTree(mine) || isTree(theirs)) {
    const left = isTree(mine) ? mine : {}
    const right = isTree(theirs) ? theirs : {}
    const keys = [...new Set([...Object.keys(left), ...Object.keys(right)])]
    return keys.flatMap((key) =>
      differences(
        (left as Record<string, unknown>)[key],
        (right as Record<string, unknown>)[key],
        path ? `${path}.${key}` : key,
      ),
    )
  }
  const [a, b] = [text(mine), text(theirs)]
  return a === b ? [] : [{ path, mine: a, theirs: b }]
}

function isTree(value: unknown): value is object {
  return typeof value === 'object' && value !== null
}

function text(value: unknown): string {
  return value === null || value === undefined ? '—' : String(value)
}
