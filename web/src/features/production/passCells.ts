import type { WeldIn } from '../../api/types'

/** Readings of a pass as they are typed, in SI units. */
export type PassCells = { number: string; current: string; voltage: string; travel: string; before: string }

export const NO_CELLS: PassCells = { number: '', current: '', voltage: '', travel: '', before: '' }

/** A number with a point or a comma; what is none is sent as it is, and refused beside its field. */
const number = (text: string) => {
  const value = Number(text.trim().replace(',', '.'))
  return Number.isFinite(value) ? value : text
}

/** Passes of the rows that hold something. */
export function passesOf(rows: readonly PassCells[]): NonNullable<WeldIn['passes']> {
  const made = rows
    .map((row, at) => ({ row, at }))
    .filter(({ row }) => [row.current, row.voltage, row.travel, row.before].some((cell) => cell.trim() !== ''))
    .map(({ row, at }) => ({
      number: row.number.trim() === '' ? at + 1 : number(row.number),
      ...(row.current.trim() && { current_a: { mean: number(row.current) } }),
      ...(row.voltage.trim() && { voltage_v: { mean: number(row.voltage) } }),
      ...(row.travel.trim() && { travel_mm_min: number(row.travel) }),
      ...(row.before.trim() && { before_c: number(row.before) }),
    }))
  return made as unknown as NonNullable<WeldIn['passes']>
}
