import { t } from '@lingui/core/macro'
import type { ReactNode } from 'react'

import type { Procedure } from '../../api/types'
import { CodeInForce } from '../../ui/CodeInForce'
import { PageTabs } from '../../ui/PageTabs'
import { PageTitle } from '../../ui/PageTitle'

const TABS: readonly [string, string][] = [
  ['/joints', t`Weld list`],
  ['/joints/coverage', t`Coverage`],
  ['/joints/coupons', t`Fewest coupons`],
  ['/joints/wps', t`WPS`],
  ['/joints/totals', t`Totals`],
]

type Props = { more: string; code?: Procedure['code'] | undefined; children?: ReactNode }

/** Heading of the pages of a weld list. */
export function JointsHead({ more, code, children }: Props) {
  return (
    <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
      <PageTitle words={t`Joints`} more={more} />
      <PageTabs label={t`Joints`} tabs={TABS} />
      {code && <CodeInForce code={code} />}
      {children}
    </div>
  )
}
