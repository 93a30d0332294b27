import { memo, useEffect, useRef } from 'react'

import type { GridKeys } from './useGridKeys'

type Props = {
  row: number
  column: number
  label: string
  width: number
  text: string
  problem: string | undefined
  active: boolean
  chosen: boolean
  keys: GridKeys
}

/** A cell; the active one holds the focus, or the field that is typed into. */
export const GridCell = memo(
  function GridCell({ row, column, label, width, text, problem, active, chosen, keys }: Props) {
    const cell = useRef<HTMLDivElement>(null)
    const editing = active && keys.typed !== null
    const focused = keys.focused
    useEffect(() => {
      if (active && !editing && focused) cell.current?.focus({ preventScroll: true })
      if (active && focused) cell.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
    }, [active, editing, focused])
    return (
      <div
        ref={cell}
        role="gridcell"
        aria-colindex={column + 2}
        aria-selected={chosen}
        aria-label={`${label}: ${text}`}
        aria-invalid={problem ? true : undefined}
        aria-description={problem}
        title={problem}
        tabIndex={active ? 0 : -1}
        className={`shrink-0 scroll-mt-9 scroll-ml-14 truncate border-b border-l border-line px-1.5 pt-1 outline-none ${chosen ? 'bg-accent-soft' : ''} ${active ? 'ring-2 ring-accent ring-inset' : ''} ${problem ? 'text-breach underline decoration-dotted' : ''}`}
        style={{ width }}
        onMouseDown={(event) => keys.choose({ row, column }, event.shiftKey)}
        onMouseEnter={(event) => {
          if (event.buttons === 1) keys.choose({ row, column }, true)
        }}
        onDoubleClick={() => keys.edit(text)}
      >
        {editing ? (
          <input
            autoFocus
            aria-label={label}
            className="-mx-1.5 -mt-1 h-[29px] w-[calc(100%+12px)] bg-panel px-1.5 outline-none"
            value={keys.typed ?? ''}
            onChange={(event) => keys.edit(event.target.value)}
            onBlur={keys.commit}
          />
        ) : problem && !text ? (
          '?'
        ) : (
          text
        )}
      </div>
    )
  },
  // What a cell shows hangs on its own props; the keys matter to the active one alone.
  (one, other) =>
    !one.active &&
    !other.active &&
    one.text === other.text &&
    one.problem === other.problem &&
    one.chosen === other.chosen &&
    one.row === other.row &&
    one.width === other.width,
)
