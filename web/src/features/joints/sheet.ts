/** A weld list as it is edited: what was typed over the rows that stand, with a way back. */

export type Cells = Record<string, string>
export type Row = { key: string; id: number | null; version: number; cells: Cells }
export type Place = { row: number; column: number }

/** What was typed and is not saved: cells by the key of their row; `null` where a row is removed. */
export type Edits = ReadonlyMap<string, Cells | null>
export type Sheet = { edits: Edits; past: readonly Edits[]; added: number }

export const EMPTY: Sheet = { edits: new Map(), past: [], added: 0 }
const MOST_STEPS_BACK = 200

/** Rows as they look with what was typed; new ones stand at the end. */
export function rowsWith(standing: readonly Row[], sheet: Sheet): Row[] {
  const kept = standing
    .filter((row) => sheet.edits.get(row.key) !== null)
    .map((row) => ({ ...row, cells: sheet.edits.get(row.key) ?? row.cells }))
  const fresh = [...sheet.edits]
    .filter(([key, cells]) => key.startsWith('new-') && cells !== null)
    .map(([key, cells]) => ({ key, id: null, version: 0, cells: cells ?? {} }))
  return [...kept, ...fresh]
}

function step(sheet: Sheet, edits: Edits, added = sheet.added): Sheet {
  return { edits, added, past: [...sheet.past, sheet.edits].slice(-MOST_STEPS_BACK) }
}

/** Put texts into cells; rows below the last are added. */
export function put(
  sheet: Sheet,
  rows: readonly Row[],
  columns: readonly string[],
  texts: readonly (readonly string[])[],
  at: Place,
): Sheet {
  const edits = new Map(sheet.edits)
  let { added } = sheet
  texts.forEach((line, down) => {
    const row = rows[at.row + down]
    const key = row?.key ?? `new-${String((added += 1))}`
    const cells: Cells = { ...(row?.cells ?? {}) }
    line.forEach((text, across) => {
      const column = columns[at.column + across]
      if (column === undefined) return
      const told = text.trim()
      if (told === '') Reflect.deleteProperty(cells, column)
      else cells[column] = told
    })
    if (row && sameCells(cells, row.cells)) return
    edits.set(key, cells)
  })
  return step(sheet, edits, added)
}

function sameCells(one: Cells, other: Cells): boolean {
  const names = new Set([...Object.keys(one), ...Object.keys(other)])
  return [...names].every((name) => (one[name] ?? '') === (other[name] ?? ''))
}

/** The corners of a selection, the upper left first. */
export function corners(one: Place, other: Place): [Place, Place] {
  return [
    { row: Math.min(one.row, other.row), column: Math.min(one.column, other.column) },
    { row: Math.max(one.row, other.row), column: Math.max(one.column, other.column) },
  ]
}

/** The first row of the selection in all rows of it; of one row alone, the row above. */
export function fillDown(
  sheet: Sheet,
  rows: readonly Row[],
  columns: readonly string[],
  one: Place,
  other: Place,
): Sheet {
  const [from, to] = corners(one, other)
  const source = from.row === to.row ? from.row - 1 : from.row
  const cells = rows[source]?.cells
  if (!cells) return sheet
  const line = columns.slice(from.column, to.column + 1).map((name) => cells[name] ?? '')
  const first = source + 1
  return put(
    sheet,
    rows,
    columns,
    Array.from({ length: to.row - first + 1 }, () => line),
    { row: first, column: from.column },
  )
}

export function removeRows(sheet: Sheet, rows: readonly Row[], one: Place, other: Place): Sheet {
  const [from, to] = corners(one, other)
  const edits = new Map(sheet.edits)
  for (const row of rows.slice(from.row, to.row + 1)) {
    if (row.id === null) edits.delete(row.key)
    else edits.set(row.key, null)
  }
  return step(sheet, edits)
}

export function undo(sheet: Sheet): Sheet {
  const edits = sheet.past.at(-1)
  return edits ? { edits, past: sheet.past.slice(0, -1), added: sheet.added } : sheet
}

/** A block as spreadsheets copy it: tabs between cells, lines between rows, quotes around cells with either. */
export function blockOf(text: string): string[][] {
  const rows: string[][] = [[]]
  let cell = ''
  let quoted = false
  const plain = text.replace(/\r\n?/g, '\n').replace(/\n$/, '')
  for (let at = 0; at < plain.length; at += 1) {
    const sign = plain.charAt(at)
    if (quoted) {
      if (sign === '"' && plain.charAt(at + 1) === '"') {
        cell += '"'
        at += 1
      } else if (sign === '"') quoted = false
      else cell += sign
    } else if (sign === '"' && cell === '' && closes(plain, at)) quoted = true
    else if (sign === '\t' || sign === '\n') {
      rows.at(-1)?.push(cell)
      cell = ''
      if (sign === '\n') rows.push([])
    } else cell += sign
  }
  rows.at(-1)?.push(cell)
  return rows
}

/** Whether a quote at the start of a cell is closed at its end: `"` alone is an inch mark. */
function closes(text: string, at: number): boolean {
  return /^"(?:[^"]|"")*"(?:[\t\n]|$)/.test(text.slice(at))
}

export function textOf(rows: readonly Row[], columns: readonly string[], one: Place, other: Place): string {
  const [from, to] = corners(one, other)
  const quoted = (text: string) => (/[\t\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text)
  return rows
    .slice(from.row, to.row + 1)
    .map((row) =>
      columns
        .slice(from.column, to.column + 1)
        .map((name) => quoted(row.cells[name] ?? ''))
        .join('\t'),
    )
    .join('\n')
}

export type Change = { id: number | null; version: number; cells: Cells | null }

/** What is sent to be saved. */
export function changesOf(standing: readonly Row[], sheet: Sheet): Change[] {
  const known = new Map(standing.map((row) => [row.key, row]))
  return [...sheet.edits].flatMap(([key, cells]) => {
    const row = known.get(key)
    if (!row) return cells && Object.keys(cells).length > 0 ? [{ id: null, version: 0, cells }] : []
    if (cells !== null && sameCells(cells, row.cells)) return []
    return [{ id: row.id, version: row.version, cells }]
  })
}
