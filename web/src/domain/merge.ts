import { mergedRows, numbered, type Joined } from './mergeRows'

/** What both changed differently. An `undefined` side has removed the row, or never had it. */
export type Clash = { path: string; mine: unknown; theirs: unknown }
export type Merged<T> = { document: T; clashes: Clash[] }

/** Fields that say what a thing is: where they differ, two versions of it are not mixed. */
const IDENTITY = ['id', 'designation', 'process', 'form', 'kind', 'weld'] as const
/** Values that only make sense whole: shares of one gas, the analysis of one heat. */
const WHOLE = new Set(['components_percent', 'chemistry', 'certificate'])
/** Lists whose place is what a row is: the two members, the two sides of a preparation. */
const BY_PLACE = new Set(['base_metals', 'sides'])

/**
 * Merge two versions that came from one: what only one side changed is taken from that side, what
 * both changed alike stays, what both changed differently is a clash and holds mine until chosen.
 * Rows are known by their `id`, wherever they stand. A list of rows without ids is one field.
 */
export function merge<T>(base: T, mine: T, theirs: T): Merged<T> {
  const clashes: Clash[] = []
  const document = join(base, mine, theirs, '', clashes) as T
  return { document, clashes }
}

/** The document with the chosen side at every clash: theirs where its path is among them, else mine. */
export function choose<T>(merged: Merged<T>, theirs: ReadonlySet<string>): T {
  const settled = merged.clashes.reduce(
    (document, one) => put(document, one.path.split('.'), theirs.has(one.path) ? one.theirs : one.mine) as T,
    merged.document,
  )
  return compact(settled) as T
}

function join(base: unknown, mine: unknown, theirs: unknown, path: string, clashes: Clash[]): unknown {
  if (same(mine, base)) return theirs
  if (same(theirs, base) || same(mine, theirs)) return mine
  const key = path.slice(path.lastIndexOf('.') + 1)
  if (Array.isArray(mine) && Array.isArray(theirs)) {
    const before: unknown[] = Array.isArray(base) ? base : []
    const below: Joined = (place, was, left, right) => join(was, left, right, under(path, place), clashes)
    const rows = mergedRows(before, mine, theirs, below, same, (place, one) =>
      clashes.push({ path: under(path, place), ...one }),
    )
    if (rows) return rows
    if (BY_PLACE.has(key)) {
      const longest = mine.length >= theirs.length ? mine : theirs
      return longest.map((_, at) => join(before[at], mine[at], theirs[at], under(path, String(at)), clashes))
    }
  } else if (isObject(mine) && isObject(theirs) && !WHOLE.has(key) && !isRange(mine) && !isRange(theirs)) {
    const before = isObject(base) ? base : {}
    if (IDENTITY.every((field) => same(mine[field], theirs[field]))) {
      const keys = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])]
      return Object.fromEntries(
        keys.map((one) => [one, join(before[one], mine[one], theirs[one], under(path, one), clashes)]),
      )
    }
  }
  clashes.push({ path, mine, theirs })
  return mine ?? theirs
}

function put(value: unknown, path: string[], chosen: unknown): unknown {
  const [key, ...rest] = path
  if (key === undefined) return chosen
  if (Array.isArray(value))
    return value.map((one, at) => (String(at) === key ? put(one, rest, chosen) : (one as unknown)))
  const object = isObject(value) ? value : {}
  return { ...object, [key]: put(object[key], rest, chosen) }
}

/** Without the rows that the chosen side had removed. */
function compact(value: unknown): unknown {
  if (Array.isArray(value)) return numbered(value.filter((one) => one !== undefined).map(compact))
  if (isObject(value)) return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, compact(one)]))
  return value
}

const under = (path: string, key: string) => (path ? `${path}.${key}` : key)

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** Two ends of one range: an end of each would be a range that nobody stated. */
function isRange(value: Record<string, unknown>): boolean {
  return 'min' in value || 'max' in value
}

/** Equal as documents: absent and null are the same. */
function same(a: unknown, b: unknown): boolean {
  if (a == null || b == null) return a == null && b == null
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((one, at) => same(one, b[at]))
  if (isObject(a) && isObject(b))
    return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((key) => same(a[key], b[key]))
  return a === b
}
