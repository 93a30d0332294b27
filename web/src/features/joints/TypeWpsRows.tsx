import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import type { ListWps } from '../../api/types'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { MarkIcon } from '../../ui/Verdict'
import { TypeCells } from './TypeCells'
import type { Assign } from './useAssign'
import { VERDICT_MARK, VERDICT_WORDS } from './verdicts'

type TypeWps = ListWps['types'][number]
type Props = {
  jobId: number
  one: TypeWps
  table: ListWps
  columns: number
  assign: Assign | null
  open: boolean
  onOpen: () => void
}

/** A joint type: the WPS it is welded to, how each WPS stands to it, and what each says against it. */
export function TypeWpsRows({ jobId, one, table, columns, assign, open, onOpen }: Props) {
  return (
    <>
      <tr className="border-b border-line align-top">
        <TypeCells one={one} open={open} onOpen={onOpen} />
        <td className="px-2 py-1.5">
          <WeldedTo one={one} table={table} assign={assign} />
        </td>
        {one.cells.slice(0, columns).map((cell, at) => (
          <td key={table.procedures[at]?.revision_id} className="px-2 py-1.5 text-[12.5px] text-steel">
            <span className="flex items-baseline gap-1.5">
              <MarkIcon mark={VERDICT_MARK[cell.verdict]} size={10} />
              {cell.names.slice(0, 2).join(', ')}
              {cell.names.length > 2 && ' …'}
            </span>
          </td>
        ))}
      </tr>
      {open && <Reasons jobId={jobId} one={one} table={table} columns={4 + columns} />}
    </>
  )
}

function WeldedTo({ one, table, assign }: Pick<Props, 'one' | 'table' | 'assign'>) {
  const name = (id: number | null) => table.procedures.find((wps) => wps.revision_id === id)?.name ?? ''
  const options = table.procedures
    .filter((_, at) => one.cells[at]?.verdict === 'covered')
    .map((wps) => [String(wps.revision_id), wps.name] as const)
  const { key, suggested, reason } = one
  const offer = name(suggested)
  const idle = one.assigned === null || one.against.length > 0
  return (
    <div className="grid gap-1">
      {assign && (options.length > 0 || one.assigned !== null) ? (
        <Choice
          label={t`WPS for ${key}`}
          value={one.assigned === null ? null : String(one.assigned)}
          options={options}
          none={t`no WPS assigned`}
          disabled={assign.pending}
          onChange={(next: string | null) => assign.save({ [one.key]: next === null ? null : Number(next) })}
        />
      ) : (
        <span className={one.assigned === null ? 'text-steel2' : 'font-head font-semibold'}>
          {one.assigned === null
            ? options.length > 0
              ? t`no WPS assigned`
              : t`no released WPS covers it`
            : name(one.assigned)}
        </span>
      )}
      {one.against.map((said) => (
        <span key={said} className="flex items-baseline gap-1.5 text-[12.5px] text-breach">
          <MarkIcon mark="breach" size={10} silent />
          {said}
        </span>
      ))}
      {idle && offer && (
        <span className="text-[12.5px] text-steel">
          {assign ? (
            <Button
              look="quiet"
              className="py-0! text-[13px]!"
              disabled={assign.pending}
              aria-label={t`Assign ${offer} to ${key}`}
              onClick={() => assign.save({ [one.key]: suggested })}
            >
              <Trans>Assign {offer}</Trans>
            </Button>
          ) : (
            <b>{offer}</b>
          )}{' '}
          {reason}
        </span>
      )}
    </div>
  )
}

type ReasonsProps = { jobId: number; one: TypeWps; table: ListWps; columns: number }

function Reasons({ jobId, one, table, columns }: ReasonsProps) {
  return (
    <tr className="border-b border-line bg-rail">
      <td colSpan={columns} className="px-3 py-2">
        <ul aria-label={t`Released WPSs`} className="grid gap-1.5 text-[13.5px]">
          {table.procedures.map((wps, at) => {
            const cell = one.cells[at]
            if (!cell) return null
            const records = cell.records.join(', ')
            const holds = records ? t`covered by ${records}` : VERDICT_WORDS[cell.verdict]
            return (
              <li key={wps.revision_id} className="grid grid-cols-[130px_minmax(0,1fr)] gap-2">
                <span className="flex items-baseline gap-1.5 font-head font-semibold">
                  <MarkIcon mark={VERDICT_MARK[cell.verdict]} size={10} silent />
                  {wps.name}
                </span>
                <span>{cell.reasons.length > 0 ? cell.reasons.join(' ') : holds}</span>
              </li>
            )
          })}
        </ul>
        {table.procedures.length === 0 && (
          <p>
            <Trans>This job has no released WPS yet.</Trans>
          </p>
        )}
        <p className="mt-2">
          <a
            className="link"
            href={`/api/jobs/${String(jobId)}/joints/print?joint_type=${one.key}`}
            target="_blank"
            rel="noreferrer"
          >
            <Trans>Print the joint cards of this type</Trans>
          </a>{' '}
          <a
            className="link ml-3"
            href={`/api/jobs/${String(jobId)}/joints/sheets?joint_type=${one.key}`}
            target="_blank"
            rel="noreferrer"
          >
            <Trans>Print its booth sheet</Trans>
          </a>
        </p>
        <p className="mt-2 text-[12.5px] text-steel2">{one.marks.join(', ')}</p>
      </td>
    </tr>
  )
}
