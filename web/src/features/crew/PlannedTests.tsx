import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import type { WelderPlan } from '../../api/types'
import { welderPlanQuery } from '../../queries/crew'
import { useUnits } from '../../session/units'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'

/** The fewest tests after which enough people may weld every joint type. */
export function PlannedTests({ jobId, needed }: { jobId: number; needed: number }) {
  const { system } = useUnits()
  const plan = useQuery(welderPlanQuery(jobId, needed, system))
  return (
    <section className="panel px-3 py-2" aria-labelledby="planned-tests">
      <h2 id="planned-tests" className="font-head text-[17px] font-semibold">
        <Trans>Tests that the crew lacks</Trans>
      </h2>
      {plan.isError && <Notice mark="breach">{plan.error.message}</Notice>}
      {plan.isPending && (
        <p className="text-steel" role="status">
          <Trans>Planning …</Trans>
        </p>
      )}
      {plan.data && <Plan plan={plan.data} />}
    </section>
  )
}

function Plan({ plan }: { plan: WelderPlan }) {
  const { tried } = plan
  return (
    <>
      <p role="status">
        {plan.tests.length > 0 &&
          plural(plan.tests.length, {
            one: '# test closes the gaps that tests can close.',
            other: '# tests close the gaps that tests can close.',
          })}{' '}
        {plan.tests.length > 0 && (
          <span className="text-steel">
            {plan.proven
              ? t`No fewer do, of ${tried} test pieces that were compared.`
              : t`Whether fewer do is not proven; ${tried} test pieces were compared.`}
          </span>
        )}
      </p>
      {plan.tests.length > 0 && (
        <ul className="mt-1 grid gap-1">
          {plan.tests.map((one) => (
            <li
              key={`${String(one.member_id)} ${one.designation}`}
              className="grid grid-cols-[180px_minmax(0,1fr)] gap-3 max-sm:grid-cols-1"
            >
              <Link className="link self-start py-0.5" to={`/crew/${String(one.member_id)}`}>
                {one.name}
              </Link>
              <span>
                <b>{one.designation}</b>{' '}
                <span className="text-[13.5px] text-steel">{t`for ${one.types.join(', ')}`}</span>
              </span>
            </li>
          ))}
        </ul>
      )}
      {plan.lacking.length > 0 && (
        <div className="mt-2">
          <p className="flex items-baseline gap-1.5">
            <MarkIcon mark="breach" size={11} silent />
            <Trans>Still short: no test piece that is known here covers it, or the crew has too few people</Trans>
          </p>
          <ul className="pl-5 text-[14px]">
            {plan.lacking.map((one) => (
              <li key={one.key}>
                <b>{one.key}</b> {one.words}
              </li>
            ))}
          </ul>
        </div>
      )}
      {plan.open.length > 0 && (
        <p className="mt-2 flex items-baseline gap-1.5">
          <MarkIcon mark="unknown" size={11} silent />
          {t`Not planned, since a fact is missing: ${plan.open.join(', ')}`}
        </p>
      )}
      <p className="mt-2 text-[12.5px] text-steel2">
        <Trans>
          A plan for the person responsible for welding and the examiner: who is fit for a test, and whether a piece is
          accepted, they say.
        </Trans>
      </p>
    </>
  )
}
