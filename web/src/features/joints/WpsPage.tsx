import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import type { ListWps } from '../../api/types'
import { listWpsQuery } from '../../queries/joints'
import { useJob } from '../../session/job'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { ListProblem } from '../../ui/ListProblem'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'
import { JointsHead } from './JointsHead'
import { PrintAll } from './PrintAll'
import { TypeWpsRows } from './TypeWpsRows'
import { useAssign, type Assign } from './useAssign'

const MOST_SHOWN = 10

/** Joint types against the released WPSs of the job, and which of them each type is welded to. */
export function WpsPage() {
  const { job } = useJob()
  return job ? <OfJob key={job.id} jobId={job.id} /> : <JointsHead more={t`WPS`} />
}

function OfJob({ jobId }: { jobId: number }) {
  const units = useUnits()
  const { may } = useSession()
  const found = useQuery(listWpsQuery(jobId, units.system))
  const assign = useAssign(jobId, found.data)
  const [leftOnly, setLeftOnly] = useState(false)
  const table = found.data
  const done = (one: ListWps['types'][number]) => one.assigned !== null && one.against.length === 0
  return (
    <div className="px-5 py-4">
      <JointsHead more={t`WPS`} code={table?.code}>
        {table && (
          <label className="ml-auto flex min-h-6 items-center gap-2">
            <input type="checkbox" checked={leftOnly} onChange={(event) => setLeftOnly(event.target.checked)} />
            <Trans>Only types without a WPS</Trans>
          </label>
        )}
      </JointsHead>
      {found.isError && <ListProblem error={found.error} />}
      {assign.error && (
        <Notice mark="breach" className="mb-3">
          {assign.error}
        </Notice>
      )}
      {table && <Head jobId={jobId} table={table} assign={may('WRITE_PROCEDURE') ? assign : null} />}
      {table && table.lost.length > 0 && <Lost table={table} assign={may('WRITE_PROCEDURE') ? assign : null} />}
      {table && table.types.length > 0 && (
        <Types
          jobId={jobId}
          table={table}
          shown={table.types.filter((one) => !leftOnly || !done(one))}
          assign={may('WRITE_PROCEDURE') ? assign : null}
        />
      )}
    </div>
  )
}

function Head({ jobId, table, assign }: { jobId: number; table: ListWps; assign: Assign | null }) {
  const all = table.types.length
  const holding = table.types.filter((one) => one.assigned !== null && one.against.length === 0)
  const ended = table.types.filter((one) => one.against.length > 0).length
  const welds = holding.reduce((sum, one) => sum + one.welds, 0)
  const of = table.types.reduce((sum, one) => sum + one.welds, 0)
  const offered = table.types.filter(
    (one) => one.suggested !== null && (one.assigned === null || one.against.length > 0),
  )
  const count = holding.length
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
      <p className="panel flex items-center gap-2 px-3 py-2">
        <MarkIcon mark={count === all ? 'holds' : 'unknown'} silent />
        <b className="font-head text-[17px]">
          <Trans>
            {count} of {all} joint types have a WPS
          </Trans>
        </b>
        <span>
          <Trans>
            {welds} of {of} welds
          </Trans>
        </span>
      </p>
      {ended > 0 && (
        <p className="panel flex items-center gap-2 border-breach px-3 py-2">
          <MarkIcon mark="breach" silent />
          {plural(ended, { one: '# assignment no longer holds', other: '# assignments no longer hold' })}
        </p>
      )}
      {table.procedures.length === 0 && (
        <p className="panel px-3 py-2">
          <Trans>
            This job has no released WPS yet. A <Link to="/procedures">procedure</Link> is released once its records
            cover it.
          </Trans>
        </p>
      )}
      {assign && offered.length > 0 && (
        <Button
          look="main"
          disabled={assign.pending}
          onClick={() => assign.save(Object.fromEntries(offered.map((one) => [one.key, one.suggested])))}
        >
          {plural(offered.length, {
            one: 'Assign the WPS suggested for # type',
            other: 'Assign the WPSs suggested for # types',
          })}
        </Button>
      )}
      {table.types.length > 0 && <Cards jobId={jobId} types={table.types} />}
    </div>
  )
}

/** What the server sets while somebody waits: more is set beside the pages. */
const AT_ONCE = { sheets: 40, cards: 300 }

function Cards({ jobId, types }: { jobId: number; types: ListWps['types'] }) {
  const under = `/api/jobs/${String(jobId)}/joints`
  return (
    <span className="flex flex-wrap items-center gap-4">
      <PrintAll
        jobId={jobId}
        what="cards"
        count={types.reduce((sum, one) => sum + one.marks.length, 0)}
        atOnce={AT_ONCE.cards}
        direct={`${under}/print`}
        words={t`Print joint cards with QR codes`}
      />
      <PrintAll
        jobId={jobId}
        what="sheets"
        count={types.length}
        atOnce={AT_ONCE.sheets}
        direct={`${under}/sheets`}
        words={t`Print a booth sheet for each joint type`}
      />
    </span>
  )
}

function Lost({ table, assign }: { table: ListWps; assign: Assign | null }) {
  return (
    <section className="panel mb-3 border-caution px-3 py-2" aria-label={t`Assignments without joints`}>
      <h2 className="font-head font-semibold">
        <Trans>Assigned, and no longer in the list: the drawing changed these joints or dropped them</Trans>
      </h2>
      <ul className="mt-1 grid gap-1">
        {table.lost.map((one) => {
          const { wps } = one
          return (
            <li key={one.id} className="flex items-baseline gap-3 text-[14px]">
              <span className="w-28 shrink-0 font-head font-semibold">{one.wps}</span>
              <span>{one.words}</span>
              {assign && (
                <Button
                  look="quiet"
                  aria-label={t`Remove the assignment of ${wps}`}
                  onClick={() => assign.drop(one.id)}
                >
                  <Trans>Remove</Trans>
                </Button>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

type TypesProps = { jobId: number; table: ListWps; shown: ListWps['types']; assign: Assign | null }

function Types({ jobId, table, shown, assign }: TypesProps) {
  const [open, setOpen] = useState('')
  const columns = table.procedures.slice(0, MOST_SHOWN)
  return (
    <div className="panel overflow-x-auto">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="border-b border-line text-left font-head">
            <th scope="col" className="w-16 px-3 py-1.5">{t`Type`}</th>
            <th scope="col" className="px-2 py-1.5">
              {t({ message: 'Joint', context: 'of a weld list' })}
            </th>
            <th scope="col" className="px-2 py-1.5 text-right">{t`Welds`}</th>
            <th scope="col" className="w-64 px-2 py-1.5">{t`Welded to`}</th>
            {columns.map((one) => (
              <th key={one.revision_id} scope="col" className="px-2 py-1.5 font-medium" title={one.title}>
                {one.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((one) => (
            <TypeWpsRows
              key={one.key}
              jobId={jobId}
              one={one}
              table={table}
              columns={columns.length}
              assign={assign}
              open={open === one.key}
              onOpen={() => setOpen((now) => (now === one.key ? '' : one.key))}
            />
          ))}
        </tbody>
      </table>
    </div>
  )
}
