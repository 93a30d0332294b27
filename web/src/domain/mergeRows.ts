/** Rows of a list that are known by their id: passes come and go, and each stays what it is. */
type Row = Record<string, unknown> & { id: string }
/** Merge one row further down: its place in the merged list, as it was, mine, theirs. */
export type Joined = (place: string, base: unknown, mine: unknown, theirs: unknown) => unknown
type Same = (a: unknown, b: unknown) => boolean
type Clashed = (place: string, one: { mine: unknown; theirs: unknown }) => void

/**
 * Merge three versions of a list by the ids of its rows; `null` where a row has none.
 *
 * A row that one removed and the other left alone is gone; one that the other changed meanwhile is
 * asked about and stays until then. New rows keep their place behind the row they were put behind;
 * where both put new ones behind the same row, theirs are asked about. Row numbers are given anew.
 */
export function mergedRows(
  base: unknown[],
  mine: unknown[],
  theirs: unknown[],
  join: Joined,
  same: Same,
  clash: Clashed,
): unknown[] | null {
  const lists = [base, mine, theirs].map(asRows)
  const [before, left, right] = lists
  if (!before || !left || !right) return null
  const [was, here, there] = [byId(before), byId(left), byId(right)]
  const kept = orderOf(before, left, right).filter((id) => {
    const [old, mineNow, theirsNow] = [was.get(id), here.get(id), there.get(id)]
    if (!old) return true
    if (mineNow && theirsNow) return true
    const kept = mineNow ?? theirsNow
    return kept !== undefined && !same(bare(kept), bare(old)) // removed by one, changed by the other
  })
  const besides = addedBeside(before, left, right)
  const rows = kept.map((id, at) => {
    const [old, mineNow, theirsNow] = [was.get(id), here.get(id), there.get(id)]
    if (mineNow && theirsNow) return join(String(at), old && bare(old), bare(mineNow), bare(theirsNow))
    const row = mineNow ?? theirsNow
    if (old || besides.has(id)) clash(String(at), { mine: mineNow, theirs: theirsNow })
    return row
  })
  return numbered(rows)
}

/** Rows counted from one again, where they are rows that have a number. */
export function numbered(rows: unknown[]): unknown[] {
  return rows.map((row, at) => (isRow(row) && 'number' in row ? { ...row, number: at + 1 } : row))
}

function asRows(list: unknown[]): Row[] | null {
  const rows = list.filter(isRow)
  return rows.length === list.length && new Set(rows.map((row) => row.id)).size === rows.length ? rows : null
}

function isRow(value: unknown): value is Row {
  return typeof value === 'object' && value !== null && typeof (value as { id?: unknown }).id === 'string'
}

const byId = (rows: Row[]) => new Map(rows.map((row) => [row.id, row]))

/** A row without its number, which says only where it stands. */
function bare(row: Row): Row {
  return 'number' in row ? { ...row, number: 0 } : row
}

/** Ids of both sides in one order: the order of the side that moved rows, with the other's new rows set in. */
function orderOf(base: Row[], mine: Row[], theirs: Row[]): string[] {
  const moved = !isOrdered(mine, base)
  const [frame, other] = moved || isOrdered(theirs, base) ? [mine, theirs] : [theirs, mine]
  const order = frame.map((row) => row.id)
  let behind = -1
  for (const { id } of other) {
    const at = order.indexOf(id)
    if (at >= 0) behind = at
    else order.splice((behind = behindNew(order, behind, other, base)), 0, id)
  }
  return order
}

/** Where a row goes that the frame has not: behind the last common row, and behind what the frame put there itself. */
function behindNew(order: string[], behind: number, other: Row[], base: Row[]): number {
  const known = new Set([...base, ...other].map((row) => row.id))
  let at = behind + 1
  while (at < order.length && !known.has(order[at] ?? '')) at += 1
  return at
}

function isOrdered(rows: Row[], base: Row[]): boolean {
  const place = new Map(base.map((row, at) => [row.id, at]))
  const places = rows.map((row) => place.get(row.id)).filter((at) => at !== undefined)
  return places.every((at, index) => index === 0 || at > (places[index - 1] ?? -1))
}

/** Ids of their new rows that stand where I have put new ones too. */
function addedBeside(base: Row[], mine: Row[], theirs: Row[]): Set<string> {
  const known = new Set(base.map((row) => row.id))
  const [left, right] = [mine, theirs].map((rows) => {
    const found = new Map<string, string[]>()
    let last = ''
    for (const { id } of rows) {
      if (known.has(id)) last = id
      else found.set(last, [...(found.get(last) ?? []), id])
    }
    return found
  })
  const twice = [...(right ?? new Map<string, string[]>())].filter(([place]) => left?.has(place))
  return new Set(twice.flatMap(([, ids]) => ids))
}
