import { useState, type ClipboardEvent, type FocusEvent, type KeyboardEvent } from 'react'

import { blockOf, textOf, type Place } from './sheet'
import type { SheetState } from './useSheet'

type Options = { sheet: SheetState; columns: readonly string[]; count: number; reach: (row: number) => void }
export type GridKeys = ReturnType<typeof useGridKeys>

const PAGE_ROWS = 15

/** Keys, clipboard and selection of the grid, as spreadsheets have them. */
export function useGridKeys({ sheet, columns, count, reach }: Options) {
  const [at, setAt] = useState<Place>({ row: 0, column: 0 })
  const [anchor, setAnchor] = useState<Place>({ row: 0, column: 0 })
  const [typed, setTyped] = useState<string | null>(null)
  const [focused, setFocused] = useState(false)

  const choose = (next: Place, extend: boolean) => {
    const place = {
      row: Math.max(0, Math.min(count - 1, next.row)),
      column: Math.max(0, Math.min(columns.length - 1, next.column)),
    }
    if (typed !== null && (place.row !== at.row || place.column !== at.column)) commit()
    setAt(place)
    if (!extend) setAnchor(place)
    reach(place.row)
  }
  const commit = () => {
    if (typed === null) return
    const before = sheet.rows[at.row]?.cells[columns[at.column] ?? ''] ?? ''
    if (typed.trim() !== before) sheet.put([[typed]], at)
    setTyped(null)
  }
  const move = (down: number, across: number, extend = false) =>
    choose({ row: at.row + down, column: at.column + across }, extend)

  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const done = (act: () => void) => {
      event.preventDefault()
      act()
    }
    const control = event.ctrlKey || event.metaKey
    if (typed !== null) {
      if (event.key === 'Enter') done(() => (commit(), move(event.shiftKey ? -1 : 1, 0)))
      else if (event.key === 'Tab') done(() => (commit(), move(0, event.shiftKey ? -1 : 1)))
      else if (event.key === 'Escape') done(() => setTyped(null))
      else if (control && event.key === 's') done(() => (sheet.save({ text: typed, at }), setTyped(null)))
      event.stopPropagation()
      return
    }
    const steps: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageUp: [-PAGE_ROWS, 0],
      PageDown: [PAGE_ROWS, 0],
      Home: [control ? -count : 0, -columns.length],
      End: [control ? count : 0, columns.length],
    }
    const stepped = steps[event.key]
    if (stepped) done(() => move(stepped[0], stepped[1], event.shiftKey))
    else if (control && event.key === 'd') done(() => sheet.fillDown(at, anchor))
    else if (control && event.key === 'z') done(sheet.undo)
    else if (control && event.key === 's') done(() => sheet.save())
    else if (control && event.key === '-') done(() => sheet.remove(at, anchor))
    else if (event.key === 'Delete' || event.key === 'Backspace') done(() => sheet.clear(at, anchor))
    else if (event.key === 'Enter' || event.key === 'F2')
      done(() => setTyped(sheet.rows[at.row]?.cells[columns[at.column] ?? ''] ?? ''))
    else if (event.key.length === 1 && !control && !event.altKey) done(() => setTyped(event.key))
    else return
    event.stopPropagation()
  }
  return {
    at,
    anchor,
    typed,
    focused,
    choose,
    commit,
    edit: (text: string) => setTyped(text),
    handlers: {
      onKeyDown,
      onFocus: () => setFocused(true),
      onBlur: (event: FocusEvent<HTMLElement>) => {
        if (!event.currentTarget.contains(event.relatedTarget)) setFocused(false)
      },
      onCopy: (event: ClipboardEvent) => {
        if (typed !== null) return
        event.preventDefault()
        event.clipboardData.setData('text/plain', textOf(sheet.rows, columns, at, anchor))
      },
      onPaste: (event: ClipboardEvent) => {
        if (typed !== null) return
        event.preventDefault()
        const from = { row: Math.min(at.row, anchor.row), column: Math.min(at.column, anchor.column) }
        sheet.put(blockOf(event.clipboardData.getData('text/plain')), from)
      },
    },
  }
}
