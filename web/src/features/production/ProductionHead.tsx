import { t } from '@lingui/core/macro'
import type { ReactNode } from 'react'

import { PageTabs } from '../../ui/PageTabs'
import { PageTitle } from '../../ui/PageTitle'

const TABS: readonly [string, string][] = [
  ['/production', t`Weld log`],
  ['/production/rates', t`Reject rates`],
  ['/production/documentation', t`Documentation`],
  ['/production/signatures', t`Signatures`],
]

/** Heading of the pages of production. */
export function ProductionHead({ more, children }: { more: string; children?: ReactNode }) {
  return (
    <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
      <PageTitle words={t`Production`} more={more} />
      <PageTabs label={t`Production`} tabs={TABS} />
      {children}
    </div>
  )
}
