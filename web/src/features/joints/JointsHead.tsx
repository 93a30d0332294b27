import { t } from '@lingui/core/macro'
import type { ReactNode } from 'react'
import { NavLink } from 'react-router'

import { PageTitle } from '../../ui/PageTitle'

const TABS: readonly [string, string][] = [
  ['/joints', t`Weld list`],
  ['/joints/coverage', t`Coverage`],
  ['/joints/coupons', t`Fewest coupons`],
]

/** Heading of the pages of a weld list. */
export function JointsHead({ more, children }: { more: string; children?: ReactNode }) {
  return (
    <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
      <PageTitle words={t`Joints`} more={more} />
      <nav aria-label={t`Joints`} className="flex flex-wrap gap-1">
        {TABS.map(([to, words]) => (
          <NavLink
            key={to}
            to={to}
            end
            className={({ isActive }) =>
              `rounded-sm px-2.5 py-1 font-head text-[15px] ${isActive ? 'bg-accent text-on-accent' : 'text-accent hover:bg-accent-soft'}`
            }
          >
            {words}
          </NavLink>
        ))}
      </nav>
      {children}
    </div>
  )
}
