import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import type { JobCrew } from '../../api/types'
import { jobCrewQuery } from '../../queries/crew'
import { useJob } from '../../session/job'
import { useUnits } from '../../session/units'
import { Choice } from '../../ui/Choice'
import { ListProblem } from '../../ui/ListProblem'
import { MarkIcon } from '../../ui/Verdict'
import { CrewHead } from './CrewHead'
import { CrewTable } from './CrewTable'
import { PlannedTests } from './PlannedTests'

const NEEDED = ['1', '2', '3', '4', '5', '6', '8', '10'].map((one) => [one, one] as const)

/** Who of the crew may weld which joint types of the job, and the tests that would close the gaps. */
export function JobCrewPage() {
  const { job } = useJob()
  return (
    <div className="px-5 py-4">
      <CrewHead more={t`Joint types`} />
      {job && <OfJob key={job.id} jobId={job.id} />}
    </div>
  )
}

function OfJob({ jobId }: { jobId: number }) {
  const { system } = useUnits()
  const [needed, setNeeded] = useState(1)
  const [shortOnly, setShortOnly] = useState(false)
  const found = useQuery(jobCrewQuery(jobId, system))
  if (found.isError) return <ListProblem error={found.error} />
  if (!found.data)
    return (
      <p className="text-steel" role="status">
        <Trans>Looking …</Trans>
      </p>
    )
  const crew = found.data
  const short = crew.types.filter((one) => one.may < needed)
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <Summary crew={crew} short={short.length} needed={needed} />
        <div className="flex items-center gap-2">
          <Trans>Welders for each joint type</Trans>
          <span className="w-16">
            <Choice
              label={t`Welders for each joint type`}
              value={String(needed)}
              options={NEEDED}
              onChange={(next) => setNeeded(Number(next ?? 1))}
            />
          </span>
        </div>
        <label className="flex min-h-6 items-center gap-2">
          <input type="checkbox" checked={shortOnly} onChange={(event) => setShortOnly(event.target.checked)} />
          <Trans>Only types that lack welders</Trans>
        </label>
      </div>
      {crew.types.length > 0 && (
        <CrewTable jobId={jobId} crew={crew} types={shortOnly ? short : crew.types} needed={needed} />
      )}
      <Without crew={crew} />
      {short.length > 0 && <PlannedTests jobId={jobId} needed={needed} />}
    </div>
  )
}

function Summary({ crew, short, needed }: { crew: JobCrew; short: number; needed: number }) {
  const all = crew.types.length + crew.without.length
  const enough = crew.types.length - short
  const mark = short > 0 ? 'breach' : crew.without.length > 0 ? 'unknown' : 'holds'
  return (
    <p className="panel flex items-center gap-2 px-3 py-2" role="status">
      <MarkIcon mark={mark} silent />
      <b className="font-head text-[17px]">
        {needed === 1 ? (
          <Trans>
            {enough} of {all} joint types have a welder
          </Trans>
        ) : (
          <Trans>
            {enough} of {all} joint types have {needed} welders
          </Trans>
        )}
      </b>
      <span>{t`on ${crew.on}`}</span>
    </p>
  )
}

/** Joint types of which nobody can be asked yet. */
function Without({ crew }: { crew: JobCrew }) {
  const count = crew.without.length
  if (count === 0) return null
  return (
    <div className="panel flex items-start gap-4 px-3 py-2">
      <details className="min-w-0 flex-1">
        <summary className="cursor-pointer">
          <MarkIcon mark="unknown" size={11} silent />{' '}
          {plural(count, {
            one: '# joint type of which it is not known what it asks of a welder',
            other: '# joint types of which it is not known what they ask of a welder',
          })}
        </summary>
        <ul className="mt-1 grid gap-0.5 text-[14px]">
          {crew.without.map((one) => (
            <li key={one.key}>
              <b>{one.key}</b> {one.words}. <span className="text-steel">{one.why}</span>
            </li>
          ))}
        </ul>
      </details>
      <Link className="link shrink-0 py-0.5" to="/joints/wps">
        <Trans>Assign WPSs</Trans>
      </Link>
    </div>
  )
}
