import fc from 'fast-check'
import { expect, it } from 'vitest'

import { blockOf, changesOf, EMPTY, fillDown, put, removeRows, rowsWith, textOf, undo, type Row } from './sheet'

const COLUMNS = ['mark', 'weld', 'thickness']
const STANDING: Row[] = ['W1', 'W2', 'W3'].map((mark, at) => ({
  key: String(at + 1),
  id: at + 1,
  version: 1,
  cells: { mark, weld: 'CJP', thickness: '20 mm' },
}))
const at = (row: number, column: number) => ({ row, column })

it('takes a block from a spreadsheet, below the last row too', () => {
  const sheet = put(EMPTY, STANDING, COLUMNS, blockOf('W3\tFW\t8 mm\r\nW4\tFW\t"3/8"" plate"\r\n'), at(2, 0))
  const rows = rowsWith(STANDING, sheet)
  expect(rows.map((row) => row.cells.mark)).toEqual(['W1', 'W2', 'W3', 'W4'])
  expect(rows[3]?.cells.thickness).toBe('3/8" plate')
  expect(changesOf(STANDING, sheet)).toEqual([
    { id: 3, version: 1, cells: { mark: 'W3', weld: 'FW', thickness: '8 mm' } },
    { id: null, version: 0, cells: { mark: 'W4', weld: 'FW', thickness: '3/8" plate' } },
  ])
})

it('reads an inch mark as one', () => {
  expect(blockOf('3/4"\t1"')).toEqual([['3/4"', '1"']])
  expect(blockOf('"a\tb"\tc')).toEqual([['a\tb', 'c']])
})

it('fills down, removes, and goes back step by step', () => {
  const typed = put(EMPTY, STANDING, COLUMNS, [['12 mm']], at(0, 2))
  const filled = fillDown(typed, rowsWith(STANDING, typed), COLUMNS, at(0, 2), at(2, 2))
  expect(rowsWith(STANDING, filled).map((row) => row.cells.thickness)).toEqual(['12 mm', '12 mm', '12 mm'])
  const removed = removeRows(filled, rowsWith(STANDING, filled), at(1, 0), at(1, 0))
  expect(rowsWith(STANDING, removed).map((row) => row.cells.mark)).toEqual(['W1', 'W3'])
  expect(changesOf(STANDING, removed).find((one) => one.id === 2)).toEqual({ id: 2, version: 1, cells: null })
  expect(undo(undo(removed)).edits).toEqual(typed.edits)
  expect(changesOf(STANDING, undo(undo(undo(removed))))).toEqual([])
})

it('sends nothing for a cell that was typed back', () => {
  const there = put(EMPTY, STANDING, COLUMNS, [['PJP']], at(0, 1))
  const back = put(there, rowsWith(STANDING, there), COLUMNS, [['CJP']], at(0, 1))
  expect(changesOf(STANDING, back)).toEqual([])
})

it('fills one row from the row above', () => {
  const sheet = fillDown(
    put(EMPTY, STANDING, COLUMNS, [['PJP']], at(0, 1)),
    rowsWith(STANDING, put(EMPTY, STANDING, COLUMNS, [['PJP']], at(0, 1))),
    COLUMNS,
    at(1, 1),
    at(1, 1),
  )
  expect(rowsWith(STANDING, sheet)[1]?.cells.weld).toBe('PJP')
})

const cell = fc.string({ maxLength: 6 }).map((text) => text.replace(/[\r\n\t"]/g, '').trim())
const line = fc.array(cell, { minLength: 3, maxLength: 3 })

it('pastes what was copied', () => {
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 5 }), (texts) => {
      const rows = rowsWith([], put(EMPTY, [], COLUMNS, texts, at(0, 0)))
      const copied = textOf(rows, COLUMNS, at(0, 0), at(rows.length - 1, 2))
      expect(blockOf(copied)).toEqual(rows.map((row) => COLUMNS.map((name) => row.cells[name] ?? '')))
    }),
  )
})
