import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { Link, useSearchParams } from 'react-router'

import type { BeadSettings } from '../../api/types'
import { passKnownQuery } from '../../queries/faults'
import { useUnits } from '../../session/units'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { STARTS } from './settings'
import { TrySettings } from './TrySettings'

/** Settings tried before the arc; nothing is stored. With a logged pass in the address it starts from that. */
export function TryPage() {
  const [params] = useSearchParams()
  const pass = /^\d+$/.test(params.get('pass') ?? '') ? Number(params.get('pass')) : null
  const start = STARTS['135']
  return (
    <div className="px-5 py-4">
      <PageTitle words={t`Try a setting`} className="mb-1" />
      <p className="mb-3 max-w-[80ch] text-[13px] text-steel2">
        <Trans>
          What settings make of a weld, by a model with its error beside each figure. It compares settings; it accepts
          nothing. Weld a trial piece before production.
        </Trans>
      </p>
      {pass !== null ? <OfPass id={pass} /> : start && <TrySettings start={start} />}
    </div>
  )
}

function OfPass({ id }: { id: number }) {
  const { system } = useUnits()
  const known = useQuery(passKnownQuery(id, system))
  if (known.isError) return <Notice mark="breach">{known.error.message}</Notice>
  if (!known.data) return null
  const { coupon_number: coupon, pass_number: number, coupon_id: couponId, settings, limits } = known.data
  if (!settings)
    return (
      <Notice mark="caution">
        {t`The metal of pass ${number} is not known here: there is nothing to predict from.`}
      </Notice>
    )
  return (
    <>
      <p className="mb-3 text-[13px]">
        <Trans>As welded:</Trans>{' '}
        <Link className="link" to={`/coupons/${couponId}`}>
          {t`Coupon ${coupon}, pass ${number}`}
        </Link>
      </p>
      <TrySettings key={id} start={settings as BeadSettings} limits={limits} fixed />
    </>
  )
}
