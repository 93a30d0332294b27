/** A field that both changed to different values. */
export type Clash = { path: string; mine: unknown; theirs: unknown }
export type Merged<T> = { document: T; clashes: Clash[] }

/**
 * Merge two versions that came from one: what only one side changed is taken from that side, what
 * both changed alike stays, what both changed differently is a clash and holds mine until chosen.
 * Lists of unequal length are one field: nothing tells which of their rows belong together.
 */
export function merge<T>(base: T, mine: T, theirs: T): Merged<T> {
  const clashes: Clash[] = []
  const document = join(base, mine, theirs, '', clashes) as T
  return { document, clashes }
}

/** The document with the chosen side at every clash. */
export function choose<T>(merged: Merged<T>, theirs: ReadonlySet<string>): T {
  return merged.clashes.filter((one) => theirs.has(one.path)).reduce((document, one) => put(document, one.path.split('.'), one.theirs) as T, merged.document)
}

function join(base: unknown, mine: unknown, theirs: unknown, path: string, clashes: Clash[]): unknown {
  if (same(mine, base)) return theirs
  if (same(theirs, base) || same(mine, theirs)) return mine
  if (Array.isArray(mine) && Array.isArray(theirs) && mine.length === theirs.length) {
    const before = Array.isArray(base) && base.length === mine.length ? base : []
    return mine.map((one, at) => join(before[at], one, theirs[at], under(path, String(at)), clashes))
  }
  if (isObject(mine) && isObject(theirs)) {
    const before = isObject(base) ? base : {}
    const keys = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])]
    return Object.fromEntries(keys.map((key) => [key, join(before[key], mine[key], theirs[key], under(path, key), clashes)]))
  }
  clashes.push({ path, mine, theirs })
  return mine
}

function put(value: unknown, path: string[], chosen: unknown): unknown {
  const [key, ...rest] = path
  if (key === undefined) return chosen
  if (Array.isArray(value)) return value.map((one, at) => (String(at) === key ? put(one, rest, chosen) : (one as unknown)))
  const object = isObject(value) ? value : {}
  return { ...object, [key]: put(object[key], rest, chosen) }
}

const under = (path: string, key: string) => (path ? `${path}.${key}` : key)

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** Equal as documents: absent and null are the same. */
function same(a: unknown, b: unknown): boolean {
  if (a == null || b == null) return a == null && b == null
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((one, at) => same(one, b[at]))
  if (isObject(a) && isObject(b)) return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((key) => same(a[key], b[key]))
  return a === b
}
