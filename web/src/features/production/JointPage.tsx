import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link, useSearchParams } from 'react-router'

import type { JointToLog } from '../../api/types'
import { jointToLogQuery } from '../../queries/production'
import { useJob } from '../../session/job'
import { outboxOfWelds, useOutbox } from '../../session/sending'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'
import { STATE_MARK, STATE_WORDS } from './states'
import { WaitingWelds } from './WaitingWelds'
import { WeldForm } from './WeldForm'

/** A joint at the bench: what it is, its WPS, what of it is welded, and the next entry. Opened by the QR code. */
export function JointPage() {
  const [search] = useSearchParams()
  const { job, unknown } = useNamedJob(search.get('job') ?? '')
  const mark = search.get('mark') ?? ''
  const repairOf = Number(search.get('repair') ?? 0) || null
  return (
    <div className="mx-auto max-w-xl px-4 py-3">
      <PageTitle words={mark || t({ message: 'Joint', context: 'of a weld list' })} more={t`Production`} />
      {unknown && (
        <Notice mark="breach">
          <Trans>There is no job {unknown} here.</Trans>
        </Notice>
      )}
      {job && <OfJoint key={`${mark} ${String(repairOf)}`} jobId={job.id} mark={mark} repairOf={repairOf} />}
    </div>
  )
}

/** The job that a printed code names is opened with its joint; without one the open job stays. */
function useNamedJob(number: string) {
  const { jobs, job, choose } = useJob()
  const named = number ? jobs?.find((one) => one.number === number) : job
  const id = named?.id
  useEffect(() => {
    if (number && id !== undefined) choose(id)
  }, [number, id, choose])
  return { job: named, unknown: jobs && number && !named ? number : '' }
}

function OfJoint({ jobId, mark, repairOf }: { jobId: number; mark: string; repairOf: number | null }) {
  const { system } = useUnits()
  const { may } = useSession()
  const queries = useQueryClient()
  const joint = useQuery(jointToLogQuery(jobId, mark, system))
  const { waiting } = useOutbox(outboxOfWelds(jobId, queries))
  if (joint.isError && !joint.data) return <Notice mark="breach">{joint.error.message}</Notice>
  if (!joint.data)
    return joint.failureReason ? (
      <Notice mark="unknown">
        {joint.failureReason.message} <Trans>This joint is not kept on this device.</Trans>
      </Notice>
    ) : null
  if (joint.data.count === 0)
    return (
      <Notice>
        <Trans>
          The weld list has no joint {mark}. <Link to="/joints">Look into the weld list</Link>
        </Trans>
      </Notice>
    )
  const here = waiting.filter((one) => one.entry.mark === mark)
  const underway = new Set(here.filter((one) => !one.entry.repair_of).map((one) => one.entry.item))
  const data = { ...joint.data, left: joint.data.left.filter((one) => !underway.has(one)) }
  const repaired = data.welds.find((one) => one.id === repairOf) ?? null
  const left = data.left.length
  return (
    <div className="grid gap-3">
      <About jobId={jobId} joint={data} />
      {data.welds.length > 0 && <Made joint={data} />}
      <WaitingWelds jobId={jobId} welds={here} left={data.left} />
      {may('LOG_WELD') && (left > 0 || repaired) && (
        <WeldForm key={data.welds.length + here.length} jobId={jobId} joint={data} repaired={repaired} />
      )}
      {left === 0 && !repaired && here.length === 0 && (
        <Notice mark="holds">
          {plural(data.count, { one: 'Its weld is logged.', other: 'All # welds of it are logged.' })}
        </Notice>
      )}
    </div>
  )
}

function About({ jobId, joint }: { jobId: number; joint: JointToLog }) {
  const wps = joint.wps.find((one) => one.revision_id === joint.assigned)
  const { drawing, ndt } = joint
  return (
    <section className="panel px-3 py-2">
      <p className="text-[15px]">{joint.words}</p>
      <p className="mt-1 flex flex-wrap gap-x-4 text-[13.5px] text-steel">
        {drawing && <span>{t`Drawing ${drawing}`}</span>}
        {ndt && <span>{t`NDT class ${ndt}`}</span>}
        <span>{plural(joint.count, { one: '# weld', other: '# welds' })}</span>
      </p>
      {wps ? (
        <p className="mt-2 flex flex-wrap items-center gap-3 font-head text-[19px] font-semibold">
          <span className="flex items-baseline gap-1.5">
            {!wps.released && <MarkIcon mark="breach" />}
            {wps.name}
          </span>
          <Link className="link text-[15px] font-normal" to={`/procedures/${String(wps.revision_id)}`}>
            <Trans>Open the WPS</Trans>
          </Link>
          <Link
            className="link text-[15px] font-normal"
            to={`/crew/who-may?job=${String(jobId)}&mark=${encodeURIComponent(joint.mark)}&revision=${String(wps.revision_id)}`}
          >
            <Trans>Who may weld it</Trans>
          </Link>
          <a className="link text-[15px] font-normal" href={`/api/revisions/${String(wps.revision_id)}/print`}>
            <Trans>Print</Trans>
          </a>
        </p>
      ) : (
        <Notice mark="breach" className="mt-2">
          <Trans>No WPS is assigned to this joint: ask the welding engineer before you weld it.</Trans>
        </Notice>
      )}
      {wps && !wps.released && (
        <Notice mark="breach" className="mt-2">
          <Trans>This WPS is no longer released: ask the welding engineer before you weld it.</Trans>
        </Notice>
      )}
      {joint.problems.length > 0 && <Notice className="mt-2">{joint.problems.join(' ')}</Notice>}
    </section>
  )
}

function Made({ joint }: { joint: JointToLog }) {
  return (
    <section className="panel px-3 py-2" aria-label={t`Welds made`}>
      <ul className="grid gap-1 text-[14px]">
        {joint.welds.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline gap-x-3">
            <Link className="link font-head font-semibold" to={`/production/welds/${String(one.id)}`}>
              {one.mark} / {one.item}
              {one.repair_of !== null && ` ${t`repair`}`}
            </Link>
            <span>{one.welded_on}</span>
            <span>{one.welders.join(', ')}</span>
            <span className="flex items-baseline gap-1.5">
              <MarkIcon mark={STATE_MARK[one.state]} size={10} silent />
              {STATE_WORDS[one.state]}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
