import { t } from '@lingui/core/macro'

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

/** A path in words: passes.2.travel_mm_min.max -> pass 3, travel, max */
export function pathWords(path: string): string {
  const parts = path.split('.')
  const words: string[] = []
  for (let i = 0; i < parts.length; i += 1) {
    const part = parts[i] ?? ''
    const next = parts[i + 1]
    if (/^\d+$/.test(part)) continue
    const singular = part === 'passes' ? t`pass` : part === 'base_metals' ? 'metal' : null
    if (singular && next !== undefined && /^\d+$/.test(next)) words.push(`${singular} ${String(Number(next) + 1)}`)
    else words.push(part.replace(/_(mm_min|m_min|l_min|kj_mm|mm|a|v|c|deg|s)$/, '').replaceAll('_', ' '))
  }
  return words.join(', ')
}
