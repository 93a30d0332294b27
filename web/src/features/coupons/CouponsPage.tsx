import { t } from '@lingui/core/macro'
import { inWords } from '../../domain/words'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { useEffect } from 'react'

import { useJob } from '../../session/job'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { Progress } from '../../ui/Progress'
import { STATE_WORDS } from '../evidence'
import { couponsQuery } from '../../queries/coupons'

/** All coupons of the job. */
export function CouponsPage() {
  // What is opened from here is fetched meanwhile: the network may be gone by then.
  useEffect(() => void import('./CouponPage'), [])
  const { job } = useJob()
  const coupons = useQuery({ ...couponsQuery(job?.id ?? 0), enabled: job !== undefined })
  return (
    <div className="px-5 py-4">
      <PageTitle words={t`Coupons`} className="mb-3" />
      {coupons.isError && <Notice mark="breach">{coupons.error.message}</Notice>}
      {coupons.data?.length === 0 && (
        <p className="panel p-6 text-steel">
          <Trans>
            No coupon yet.{' '}
            <Link className="link" to="/procedures">
              Open a procedure
            </Link>{' '}
            and choose “Weld a coupon”.
          </Trans>
        </p>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(320px,1fr))] gap-3">
        {coupons.data?.map((one) => (
          <li key={one.id} className="panel p-3">
            <div className="flex items-baseline justify-between gap-2">
              <Link className="link min-h-6 font-head text-[17px] font-semibold" to={`/coupons/${String(one.id)}`}>
                {one.number}
              </Link>
              <span
                className={`text-[13px] ${one.record_state === 'void' || one.damaged ? 'font-semibold text-breach' : 'text-steel2'}`}
              >
                {one.damaged
                  ? t`damaged`
                  : one.record_state
                    ? t`record ${STATE_WORDS[one.record_state] ?? ''}`
                    : inWords(one.status)}
              </span>
            </div>
            <p className="truncate text-[13px]" title={one.title}>
              <Trans>
                for{' '}
                <Link className="link" to={`/procedures/${one.revision_id}`}>
                  {one.procedure_number} {one.letter}
                </Link>{' '}
                {one.title}
              </Trans>
            </p>
            <p className="text-[13px] text-steel2">{one.welder || t`no welder named`}</p>
            {one.damaged ? (
              <p role="alert" className="mt-1 text-[13px] text-breach">
                {one.damaged}
              </p>
            ) : (
              <Progress done={one.logged} of={one.planned} flagged={one.flagged} />
            )}
          </li>
        ))}
      </ul>
    </div>
  )
}
