import { t } from '@lingui/core/macro'

import { PageTabs } from '../../ui/PageTabs'

const TABS = [
  ['', t`Run log`],
  ['/tests', t`Tests`],
  ['/range', t`Range`],
] as const

/** From the welding of a coupon to what it proves. */
export function CouponTabs({ id }: { id: number }) {
  return (
    <PageTabs label={t`Of the coupon`} tabs={TABS.map(([path, words]) => [`/coupons/${String(id)}${path}`, words])} />
  )
}
