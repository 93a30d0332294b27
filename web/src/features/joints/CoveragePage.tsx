import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import type { JointType, ListCoverage } from '../../api/types'
import { listCoverageQuery } from '../../queries/joints'
import { useJob } from '../../session/job'
import { useUnits } from '../../session/units'
import { ListProblem } from '../../ui/ListProblem'
import { MarkIcon } from '../../ui/Verdict'
import { JointsHead } from './JointsHead'
import { TypeCells } from './TypeCells'
import { VERDICT_MARK, VERDICT_WORDS } from './verdicts'
import { WhyRow } from './WhyRow'

const MOST_RECORDS = 10

/** Joint types against the signed records of the job: which are covered, and what stands in the way. */
export function CoveragePage() {
  const { job } = useJob()
  return job ? <OfJob key={job.id} jobId={job.id} /> : <JointsHead more={t`Coverage`} />
}

function OfJob({ jobId }: { jobId: number }) {
  const units = useUnits()
  const [gapsOnly, setGapsOnly] = useState(false)
  const cover = useQuery(listCoverageQuery(jobId, units.system))
  const types = cover.data?.types ?? []
  const shown = gapsOnly ? types.filter((one) => one.verdict !== 'covered') : types
  return (
    <div className="px-5 py-4">
      <JointsHead more={t`Coverage`} code={cover.data?.code}>
        {cover.data && (
          <label className="ml-auto flex min-h-6 items-center gap-2">
            <input type="checkbox" checked={gapsOnly} onChange={(event) => setGapsOnly(event.target.checked)} />
            <Trans>Only what is not covered</Trans>
          </label>
        )}
      </JointsHead>
      {cover.isError && <ListProblem error={cover.error} />}
      {cover.data && <Summary cover={cover.data} />}
      {cover.data && shown.length > 0 && <Matrix jobId={jobId} cover={cover.data} shown={shown} />}
    </div>
  )
}

function Summary({ cover }: { cover: ListCoverage }) {
  const welds = (verdict: JointType['verdict']) =>
    cover.types.filter((one) => one.verdict === verdict).reduce((sum, one) => sum + one.welds, 0)
  const { unread } = cover
  return (
    <div className="mb-3 flex flex-wrap gap-x-6 gap-y-2">
      {(['covered', 'open', 'blocked'] as const).map((verdict) => {
        const types = cover.types.filter((one) => one.verdict === verdict).length
        const count = welds(verdict)
        if (types === 0) return null
        return (
          <p key={verdict} className="panel flex items-center gap-2 px-3 py-2">
            <MarkIcon mark={VERDICT_MARK[verdict]} silent />
            <b className="font-head text-[17px]">{VERDICT_WORDS[verdict]}</b>
            <span>
              {plural(types, { one: '# joint type', other: '# joint types' })},{' '}
              {plural(count, { one: '# weld', other: '# welds' })}
            </span>
          </p>
        )
      })}
      {unread > 0 && (
        <p className="panel flex items-center gap-2 px-3 py-2">
          <MarkIcon mark="unknown" silent />
          <Link className="link" to="/joints">
            {plural(unread, {
              one: '# row of the list is no joint yet',
              other: '# rows of the list are no joints yet',
            })}
          </Link>
        </p>
      )}
      {cover.records.length === 0 && (
        <p className="panel px-3 py-2">
          <Trans>This job has no signed record yet: nothing is covered.</Trans>
        </p>
      )}
    </div>
  )
}

function Matrix({ jobId, cover, shown }: { jobId: number; cover: ListCoverage; shown: readonly JointType[] }) {
  const [open, setOpen] = useState('')
  const records = cover.records.slice(0, MOST_RECORDS)
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
            <th scope="col" className="px-2 py-1.5">{t`Signed records`}</th>
            {records.map((one) => (
              <th key={one} scope="col" className="px-2 py-1.5 font-medium">
                {one}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((one) => (
            <TypeRows
              key={one.key}
              jobId={jobId}
              one={one}
              records={records}
              open={open === one.key}
              onOpen={() => setOpen((now) => (now === one.key ? '' : one.key))}
            />
          ))}
        </tbody>
      </table>
    </div>
  )
}

type RowProps = { jobId: number; one: JointType; records: readonly string[]; open: boolean; onOpen: () => void }

function TypeRows({ jobId, one, records, open, onOpen }: RowProps) {
  const by = one.by.join(', ')
  return (
    <>
      <tr className="border-b border-line align-top">
        <TypeCells one={one} open={open} onOpen={onOpen} />
        <td className="px-2 py-1.5">
          <span className="flex items-baseline gap-1.5">
            <MarkIcon mark={VERDICT_MARK[one.verdict]} silent />
            {one.verdict === 'covered' ? t`covered by ${by}` : VERDICT_WORDS[one.verdict]}
          </span>
        </td>
        {records.map((record, at) => {
          const cell = one.cells[at]
          return (
            <td key={record} className="px-2 py-1.5 text-[12.5px] text-steel">
              {cell && (
                <span className="flex items-baseline gap-1.5">
                  <MarkIcon mark={VERDICT_MARK[cell.verdict]} size={10} />
                  {cell.names.slice(0, 2).join(', ')}
                  {cell.names.length > 2 && ' …'}
                </span>
              )}
            </td>
          )
        })}
      </tr>
      {open && <WhyRow jobId={jobId} one={one} columns={4 + records.length} />}
    </>
  )
}
