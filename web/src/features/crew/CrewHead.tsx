import { t } from '@lingui/core/macro'
import type { ReactNode } from 'react'

import { PageTabs } from '../../ui/PageTabs'
import { PageTitle } from '../../ui/PageTitle'

const TABS: readonly [string, string][] = [
  ['/crew', t`Welders`],
  ['/crew/positions', t`Positions`],
  ['/crew/joints', t`Joint types`],
  ['/crew/due', t`What runs out`],
  ['/crew/who-may', t`Who may weld it`],
]

/** Heading of the pages of the crew. */
export function CrewHead({ more, children }: { more: string; children?: ReactNode }) {
  return (
    <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
      <PageTitle words={t`Crew`} more={more} />
      <PageTabs label={t`Crew`} tabs={TABS} />
      {children}
    </div>
  )
}
