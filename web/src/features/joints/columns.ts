import type { WeldList } from '../../api/types'

/** Titles of columns by their names, as the server says them. */
export const titlesOf = (columns: WeldList['columns']): Record<string, string> =>
  Object.fromEntries(columns.map((one) => [one.name, one.title]))

/** Widths in px; a mark and a metal need more than a thickness. */
export const WIDTHS: Record<string, number> = {
  mark: 90,
  drawing: 84,
  revision: 48,
  part: 110,
  weld: 84,
  metal: 112,
  metal2: 112,
  size: 84,
  count: 48,
  remarks: 240,
  edge: 120,
  impact: 130,
  place: 130,
}
export const USUAL_WIDTH = 96
