import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Progress } from '../../ui/Progress'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import type { RevisionLine } from '../../api/types'
import { useJob } from '../../session/job'
import { useSession } from '../../session/session'
import { inWords, codeWords } from '../../domain/words'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'
import { couponsQuery } from '../../queries/coupons'
import { dueQuery } from '../../queries/crew'
import { FirstSteps } from './FirstSteps'
import { Counts } from '../procedures/ProceduresPage'
import { proceduresQuery } from '../../queries/procedures'

/** Columns of the dashboard, each with the stages that stand in it and what an empty one says. */
const STAGES: readonly { words: string; stages: readonly string[]; empty: string }[] = [
  { words: t`Draft`, stages: ['draft'], empty: t`No draft. Start one under Procedures.` },
  { words: t`Trial and tested`, stages: ['trial', 'tested'], empty: t`“Weld a coupon” on a draft moves it here.` },
  {
    words: t`Qualified and released`,
    stages: ['prequalified', 'qualified', 'released', 'superseded', 'withdrawn'],
    empty: t`What its records cover is declared qualified, then released.`,
  },
]

/** What waits: every procedure with its one next step, and the coupons in progress. */
export function DashboardPage() {
  const { job, jobs, error: jobsError } = useJob()
  const procedures = useQuery({ ...proceduresQuery(job?.id ?? 0), enabled: job !== undefined })
  const coupons = useQuery({ ...couponsQuery(job?.id ?? 0), enabled: job !== undefined })
  const { person } = useSession()
  const problem = jobsError ?? procedures.error ?? coupons.error
  const waiting = procedures.failureReason ?? coupons.failureReason
  return (
    <div className="px-5 py-4">
      <PageTitle words={t`Dashboard`} />
      <p className="mb-4 text-[13px] text-steel2">
        {job ? `${job.customer} · ${job.number} ${job.title} · ` : ''}
        {person.name}
      </p>
      {problem && (
        <Notice mark="breach" className="mb-4">
          {problem.message}
        </Notice>
      )}
      {!problem && waiting && !procedures.data && (
        <Notice className="mb-4">
          <Trans>{waiting.message} Trying again …</Trans>
        </Notice>
      )}
      {jobs?.length === 0 && <FirstSteps />}
      <RunsOut />
      {jobs?.length !== 0 && (
        <div className="grid grid-cols-4 gap-4 max-[1150px]:grid-cols-2 max-sm:grid-cols-1">
          {STAGES.map(({ words, stages, empty }) => {
            const lines = procedures.data?.filter((one) => stages.includes(one.stage)) ?? []
            return (
              <section key={words} aria-label={words} className="min-w-0">
                <h2 className="mb-2 border-b border-line pb-1 text-[17px]">
                  {words}{' '}
                  <span className="font-sans text-[13px] font-normal text-steel2">
                    {procedures.data ? lines.length : ''}
                  </span>
                </h2>
                <ul className="grid grid-cols-[minmax(0,1fr)] gap-2">
                  {lines.map((one) => (
                    <Card key={one.id} one={one} />
                  ))}
                </ul>
                {procedures.data && lines.length === 0 && <p className="text-[13px] text-steel2">{empty}</p>}
              </section>
            )
          })}
          <section aria-label={t`Coupons in progress`} className="min-w-0">
            <h2 className="mb-2 border-b border-line pb-1 text-[17px]">
              <Trans>Coupons in progress</Trans>
            </h2>
            <ul className="grid grid-cols-[minmax(0,1fr)] gap-2">
              {coupons.data
                ?.filter((one) => one.status === 'welding')
                .map((one) => (
                  <li key={one.id} className="panel p-3">
                    <Link className="link font-semibold" to={`/coupons/${String(one.id)}`}>
                      {one.number}
                    </Link>{' '}
                    <span className="text-[13px] text-steel2">
                      <Trans>
                        for {one.procedure_number} {one.letter},
                      </Trans>{' '}
                      {one.welder || t`no welder named`}
                    </span>
                    <Progress done={one.logged} of={one.planned} flagged={one.flagged} />
                  </li>
                ))}
            </ul>
            {coupons.data && coupons.data.every((one) => one.status !== 'welding') && (
              <p className="text-[13px] text-steel2">
                <Trans>None is being welded.</Trans>
              </p>
            )}
          </section>
        </div>
      )}
    </div>
  )
}

const SOON_DAYS = 30

/** Certificates of the crew that need something soon, or ran out lately. */
function RunsOut() {
  const due = useQuery(dueQuery(SOON_DAYS))
  const lines = due.data ?? []
  if (lines.length === 0) return null
  const lapsed = lines.filter((one) => one.kind === 'lapsed').length
  const soon = lines.length - lapsed
  return (
    <p className="panel mb-4 flex flex-wrap items-baseline gap-x-5 gap-y-1 px-3 py-2 text-[14px]">
      <Link className="link font-semibold" to="/crew/due">
        <Trans>Qualification of welders</Trans>
      </Link>
      {soon > 0 && (
        <span className="flex items-baseline gap-1.5">
          <MarkIcon mark="caution" size={11} silent />
          {plural(soon, {
            one: `# certificate needs something within ${SOON_DAYS} days`,
            other: `# certificates need something within ${SOON_DAYS} days`,
          })}
        </span>
      )}
      {lapsed > 0 && (
        <span className="flex items-baseline gap-1.5">
          <MarkIcon mark="breach" size={11} silent />
          {plural(lapsed, {
            one: `# certificate lapsed in the last ${SOON_DAYS} days`,
            other: `# certificates lapsed in the last ${SOON_DAYS} days`,
          })}
        </span>
      )}
    </p>
  )
}

function Card({ one }: { one: RevisionLine }) {
  const { codes } = useSession()
  return (
    <li className="panel p-3">
      <div className="flex items-baseline justify-between gap-2">
        <Link
          className="min-w-0 truncate font-head text-[16px] font-semibold hover:underline"
          to={`/procedures/${String(one.id)}`}
          title={one.title}
        >
          {one.number} {one.title}
        </Link>
        <span className="shrink-0 text-[13px]">
          <Counts breaches={one.breaches} cautions={one.cautions} open={one.open_questions} />
        </span>
      </div>
      <p className="text-[12.5px] text-steel2">
        {codeWords(one.code_id, one.code_level, codes.find((code) => code.id === one.code_id)?.short)} ·{' '}
        {one.processes.join(' + ') || t`no pass yet`} · {one.positions.join(', ') || t`no position`}
      </p>
      <p className="mt-1 text-[13px]">
        <span className="text-steel2">
          <Trans>{inWords(one.stage)}, next:</Trans>
        </span>{' '}
        {one.next_step}
      </p>
    </li>
  )
}
