import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useMemo, useRef } from 'react'

import type { WeldList } from '../../api/types'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { titlesOf, USUAL_WIDTH, WIDTHS } from './columns'
import { GridCell } from './GridCell'
import { corners, type Row } from './sheet'
import { useGridKeys } from './useGridKeys'
import { useSheet } from './useSheet'

const ROW_PX = 30
const NUMBER_PX = 52

/** The list as a spreadsheet: typed, pasted, filled down, undone; saved when one says so. */
export function JointGrid({ jobId, list }: { jobId: number; list: WeldList }) {
  const columns = useMemo(() => list.columns.map((one) => one.name), [list.columns])
  const titles = useMemo(() => titlesOf(list.columns), [list.columns])
  const widths = columns.map((name) => WIDTHS[name] ?? USUAL_WIDTH)
  const sheet = useSheet(jobId, list)
  const { rows } = sheet
  const scroller = useRef<HTMLDivElement>(null)
  // One empty row below the last takes what is typed or pasted there.
  const count = rows.length + 1
  // eslint-disable-next-line react-hooks/incompatible-library -- the list is long: only what is seen is drawn
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  })
  const keys = useGridKeys({ sheet, columns, count, reach: (row) => virtual.scrollToIndex(row) })
  const [from, to] = corners(keys.at, keys.anchor)
  const problems = useMemo(() => problemsOf(list), [list])
  const here = rows[keys.at.row]
  const column = columns[keys.at.column] ?? ''
  const said = here && !sheet.changed.has(here.key) ? problems.get(here.key)?.get(column) : undefined
  return (
    <>
      <GridHead sheet={sheet} />
      <div
        ref={scroller}
        role="grid"
        tabIndex={-1}
        aria-label={t`Weld list`}
        aria-rowcount={count + 1}
        aria-colcount={columns.length + 1}
        aria-multiselectable
        className="panel min-h-48 flex-1 overflow-auto text-[14px] outline-none"
        {...keys.handlers}
      >
        <div role="row" className="sticky top-0 z-20 flex w-max border-b border-line bg-panel font-head font-semibold">
          <span role="columnheader" className="sticky left-0 z-10 shrink-0 bg-panel" style={{ width: NUMBER_PX }}>
            <span className="sr-only">{t`Row`}</span>
          </span>
          {columns.map((name, at) => (
            <span
              key={name}
              role="columnheader"
              className="shrink-0 truncate border-l border-line px-1.5 py-1"
              style={{ width: widths[at] }}
              title={titles[name]}
            >
              {titles[name] ?? name}
            </span>
          ))}
        </div>
        <div role="rowgroup" className="relative w-max" style={{ height: virtual.getTotalSize(), minWidth: '100%' }}>
          {virtual.getVirtualItems().map(({ index, start }) => (
            <div
              key={rows[index]?.key ?? 'next'}
              role="row"
              aria-rowindex={index + 2}
              className="absolute flex"
              style={{ top: start, height: ROW_PX }}
            >
              <RowNumber index={index} row={rows[index]} changed={sheet.changed} />
              {columns.map((name, at) => (
                <GridCell
                  key={name}
                  row={index}
                  column={at}
                  label={titles[name] ?? name}
                  width={widths[at] ?? USUAL_WIDTH}
                  text={rows[index]?.cells[name] ?? ''}
                  problem={
                    sheet.changed.has(rows[index]?.key ?? '')
                      ? undefined
                      : problems.get(rows[index]?.key ?? '')?.get(name)
                  }
                  active={keys.at.row === index && keys.at.column === at}
                  chosen={index >= from.row && index <= to.row && at >= from.column && at <= to.column}
                  keys={keys}
                />
              ))}
            </div>
          ))}
        </div>
      </div>
      <p className="min-h-6 pt-1 text-[13px]" aria-live="polite">
        {said ? <span className="text-breach">{said}</span> : <span className="text-steel2">{HELP}</span>}
      </p>
    </>
  )
}

const HELP = t`Type to write, Enter to edit, arrows and Shift to select, Ctrl C and V, Ctrl D to fill down, Ctrl Z to undo, Ctrl S to save.`

function problemsOf(list: WeldList): Map<string, Map<string, string>> {
  return new Map(
    list.rows
      .filter((row) => row.problems.length > 0)
      .map((row) => [String(row.id), new Map(row.problems.map((one) => [one.column, one.message]))]),
  )
}

function RowNumber({ index, row, changed }: { index: number; row: Row | undefined; changed: ReadonlySet<string> }) {
  return (
    <span
      role="rowheader"
      className="sticky left-0 z-10 shrink-0 bg-panel px-1.5 pt-1 text-right text-steel2"
      style={{ width: NUMBER_PX }}
      title={row && changed.has(row.key) ? t`not saved` : undefined}
    >
      {row ? index + 1 : '+'}
      {row && changed.has(row.key) ? '•' : ''}
    </span>
  )
}

function GridHead({ sheet }: { sheet: ReturnType<typeof useSheet> }) {
  const waiting = sheet.unsaved
  return (
    <>
      {sheet.refusal && (
        <Notice mark="breach" className="mb-2">
          {sheet.refusal}{' '}
          {sheet.theirs && (
            <span className="ml-2 inline-flex gap-2">
              <Button onClick={sheet.takeTheirs}>
                <Trans>Take theirs, drop mine</Trans>
              </Button>
              <Button onClick={sheet.saveOver}>
                <Trans>Save mine over it</Trans>
              </Button>
            </span>
          )}
        </Notice>
      )}
      {waiting > 0 && (
        <div className="mb-2 flex items-center gap-2">
          <Button look="main" disabled={sheet.saving} onClick={() => sheet.save()}>
            {sheet.saving
              ? t`Saving …`
              : plural(waiting, { one: 'Save # changed joint', other: 'Save # changed joints' })}
          </Button>
          <Button onClick={sheet.undo}>
            <Trans>Undo</Trans>
          </Button>
          <span className="text-[13px] text-steel2">
            <Trans>Not saved yet. What is typed is read when it is saved.</Trans>
          </span>
        </div>
      )}
    </>
  )
}
