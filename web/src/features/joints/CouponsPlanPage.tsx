import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import type { CouponPlan, WeldList } from '../../api/types'
import { weldListQuery } from '../../queries/joints'
import { digits } from '../../session/language'
import { useJob } from '../../session/job'
import { Button } from '../../ui/Button'
import { ListProblem } from '../../ui/ListProblem'
import { Notice } from '../../ui/Notice'
import { CompareCodes } from './CompareCodes'
import { JointsHead } from './JointsHead'
import { PlannedCoupons } from './PlannedCoupons'
import { SearchProgress } from './SearchProgress'
import type { Asked, Found } from './searching'
import { ShopForm } from './ShopForm'
import { useSearch } from './useSearch'

const AS_IS: Asked = { keep: [], without: [] }

/** The cheapest coupons for what the records of the job leave open, with the proof. */
export function CouponsPlanPage() {
  const { job } = useJob()
  return job ? <OfJob key={job.id} jobId={job.id} /> : <JointsHead more={t`Fewest coupons`} />
}

function OfJob({ jobId }: { jobId: number }) {
  const list = useQuery(weldListQuery(jobId))
  return (
    <div className="px-5 py-4">
      <JointsHead more={t`Fewest coupons`} code={list.data?.code} />
      {list.isError && <Notice mark="breach">{list.error.message}</Notice>}
      {list.data && <Plan jobId={jobId} list={list.data} />}
    </div>
  )
}

function Plan({ jobId, list }: { jobId: number; list: WeldList }) {
  const { ask, busy, going, found, first, isCurrent, error } = useSearch(jobId)
  const asked = found?.search ?? AS_IS
  return (
    <div className="grid grid-cols-[300px_minmax(0,1fr)] items-start gap-4 max-lg:grid-cols-1">
      <ShopForm key={list.version} jobId={jobId} list={list} />
      <div className="grid gap-3">
        <div className="flex flex-wrap items-center gap-3">
          <Button look="main" disabled={busy} onClick={() => ask(AS_IS)}>
            {busy ? t`Drafting and comparing coupons …` : t`Find the cheapest coupons`}
          </Button>
          <CompareCodes jobId={jobId} list={list} busy={busy} />
          {asked.keep.length + asked.without.length > 0 && (
            <Button onClick={() => ask(AS_IS)} disabled={busy}>
              <Trans>Without the what-if</Trans>
            </Button>
          )}
        </div>
        {going && <SearchProgress jobId={jobId} search={going} />}
        {error && <ListProblem error={error} />}
        {!found && !busy && !error && (
          <p className="panel p-4 text-steel">
            <Trans>
              For every joint type that no signed record covers, coupons are drafted, their range of qualification is
              computed as everywhere, and the cheapest set that covers them all is found, with the proof that none is
              cheaper.
            </Trans>
          </p>
        )}
        {found && !isCurrent && (
          <Notice mark="caution">
            <Trans>The list, the records or the code book changed since this was found: find it again.</Trans>
          </Notice>
        )}
        {found && <Found jobId={jobId} found={found} first={first} onAsk={ask} />}
      </div>
    </div>
  )
}

type FoundProps = {
  jobId: number
  found: Found
  first: CouponPlan | null
  onAsk: (next: Asked) => void
}

const money = (value: number, currency: string) => `${digits(value.toFixed(0))} ${currency}`

function Found({ jobId, found, first, onAsk }: FoundProps) {
  const { plan, search: whatIf } = found
  const { gaps, tried } = plan
  const cost = money(plan.cost, plan.currency)
  const bound = money(plan.bound, plan.currency)
  const more = first ? plan.cost - first.cost : 0
  const count = plan.coupons.length
  return (
    <>
      <p className="panel flex flex-wrap items-baseline gap-x-4 gap-y-1 px-4 py-3">
        <b className="font-head text-xl">
          {plural(count, { one: '# coupon', other: '# coupons' })}, {cost}
        </b>
        <span>
          {plan.optimal
            ? t`proven: no cheaper set among ${tried} coupons drafted`
            : t`best found in the time; no set costs less than ${bound}`}
        </span>
        <span className="text-steel2">
          {plural(gaps, { one: '# joint type is not covered yet', other: '# joint types are not covered yet' })}
        </span>
        {whatIf.keep.length + whatIf.without.length > 0 && first && (
          <span className="font-semibold">
            {more > 0
              ? t`${money(more, plan.currency)} more than without the what-if`
              : t`no dearer than without the what-if`}
          </span>
        )}
      </p>
      {whatIf.without.map((name) => (
        <p key={name} className="text-[13px]">
          {t`Left out: ${name}`}{' '}
          <Button
            look="quiet"
            onClick={() => onAsk({ keep: whatIf.keep, without: whatIf.without.filter((one) => one !== name) })}
          >
            <Trans>take it back</Trans>
          </Button>
        </p>
      ))}
      {count > 0 && <PlannedCoupons jobId={jobId} found={found} onAsk={onAsk} />}
      {plan.uncovered.length > 0 && (
        <section className="panel p-3" aria-label={t`No coupon covers`}>
          <h2 className="mb-1 font-head text-[17px] font-semibold">
            <Trans>No coupon of this shop covers</Trans>
          </h2>
          <ul className="grid gap-2 text-[14px]">
            {plan.uncovered.map((one) => (
              <li key={one.key}>
                <b>{one.key}</b> {one.words}
                <div className="text-breach">{one.reasons.join(' ')}</div>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}
