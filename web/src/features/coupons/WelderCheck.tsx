import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import type { Coupon } from '../../api/types'
import { couponWelderQuery } from '../../queries/crew'
import { NamedWelders } from '../../ui/NamedWelders'

/** Whether whoever welds the coupon is qualified for it: said before the arc, and until it is welded. */
export function WelderCheck({ coupon }: { coupon: Coupon }) {
  const name = coupon.people.find((one) => one.role === 'welder')?.name ?? ''
  const found = useQuery({ ...couponWelderQuery(coupon.id, name), enabled: name !== '' })
  const against = found.data?.filter((one) => one.standing !== 'may') ?? []
  if (name === '' || against.length === 0) return null
  return (
    <div className="grid gap-1">
      <NamedWelders
        found={against}
        note={t`A test piece may be welded without: whoever welds it well is qualified by it, once it is examined as a welder's test.`}
      />
      <Link className="link text-[13.5px]" to={`/crew/who-may?coupon=${String(coupon.id)}`}>
        <Trans>Who may weld it</Trans>
      </Link>
    </div>
  )
}
