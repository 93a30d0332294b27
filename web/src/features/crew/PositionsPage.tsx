import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import type { CrewPositions } from '../../api/types'
import { positionsQuery } from '../../queries/crew'
import { Notice } from '../../ui/Notice'
import { CrewHead } from './CrewHead'

type Held = CrewPositions['people'][number]['held'][number]
type Column = { code: string; names: string[]; weld: string; cells: (Held | undefined)[] }

/** In which positions everybody is qualified, process by process. */
export function PositionsPage() {
  const found = useQuery(positionsQuery)
  return (
    <div className="px-5 py-4">
      <CrewHead more={t`Positions`} />
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {found.data && <Table crew={found.data} />}
    </div>
  )
}

/** Processes and kinds of weld that anybody holds; those with the same positions for everybody are one column. */
function columnsOf(crew: CrewPositions): Column[] {
  const found = new Map<string, Column>()
  for (const held of crew.people.flatMap((person) => person.held)) {
    const key = `${held.code} ${held.weld} ${held.process}`
    if (found.has(key)) continue
    const cells = crew.people.map((person) =>
      person.held.find((one) => one.code === held.code && one.weld === held.weld && one.process === held.process),
    )
    found.set(key, { code: held.code, weld: held.weld, names: [held.process], cells })
  }
  const joined: Column[] = []
  for (const [, one] of [...found].sort(([key], [other]) => key.localeCompare(other))) {
    const same = joined.find((other) => other.code === one.code && other.weld === one.weld && alike(one, other))
    if (same) same.names.push(...one.names)
    else joined.push(one)
  }
  return joined
}

function alike(one: Column, other: Column): boolean {
  const said = (column: Column) => JSON.stringify(column.cells.map((cell) => cell && [cell.valid, cell.lapsed]))
  return said(one) === said(other)
}

function keyOf(column: Column): string {
  return `${column.code} ${column.weld} ${column.names.join()}`
}

function Table({ crew }: { crew: CrewPositions }) {
  const columns = columnsOf(crew)
  if (columns.length === 0)
    return (
      <p className="text-steel" role="status">
        <Trans>No certificate is entered yet.</Trans>
      </p>
    )
  const codes = [...new Set(columns.map((one) => one.code))]
  return (
    <>
      <div className="panel overflow-x-auto" tabIndex={0} role="region" aria-label={t`Positions of the crew`}>
        <table className="w-full text-[14px]">
          <thead className="font-head">
            <tr className="border-b border-line text-left">
              <th rowSpan={2} scope="col" className="sticky left-0 bg-panel px-3 py-1.5 align-bottom">{t`Welder`}</th>
              {codes.map((code) => (
                <th
                  key={code}
                  scope="colgroup"
                  colSpan={columns.filter((one) => one.code === code).length}
                  className="border-l border-line px-2 py-1.5"
                >
                  {code}
                </th>
              ))}
            </tr>
            <tr className="border-b border-line text-left">
              {columns.map((one) => (
                <th key={keyOf(one)} scope="col" className="border-l border-line px-2 py-1.5">
                  {one.names.join(', ')} <span className="font-normal text-steel">{one.weld}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {crew.people.map((person, at) => (
              <tr key={person.id} className="border-b border-line align-top">
                <th scope="row" className="sticky left-0 bg-panel px-3 py-1.5 text-left font-normal whitespace-nowrap">
                  <Link className="link inline-block py-0.5" to={`/crew/${String(person.id)}`}>
                    {person.name} {person.mark && `(${person.mark})`}
                  </Link>
                </th>
                {columns.map((column) => (
                  <Cell key={keyOf(column)} held={column.cells[at]} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-[12.5px] text-steel2">
        <Trans>
          Positions of certificates that are valid today; struck out where only a certificate covers it that is not.
          Sizes, fillers and weld details are not told here: ask who may weld a joint.
        </Trans>
      </p>
    </>
  )
}

function Cell({ held }: { held: Held | undefined }) {
  const any = held && held.valid.length + held.lapsed.length === 0
  return (
    <td className="border-l border-line px-2 py-1.5">
      {any && t`any`}
      {held && held.valid.length > 0 && <span className="font-semibold">{held.valid.join(' ')}</span>}{' '}
      {held && held.lapsed.length > 0 && (
        <s className="text-breach" title={t`no valid certificate`}>
          {held.lapsed.join(' ')}
        </s>
      )}
    </td>
  )
}
