import { t } from '@lingui/core/macro'
import { NavLink } from 'react-router'

const TABS = [
  ['', t`Run log`],
  ['/tests', t`Tests`],
  ['/range', t`Range`],
] as const

/** From the welding of a coupon to what it proves. */
export function CouponTabs({ id }: { id: number }) {
  return (
    <nav aria-label={t`Of the coupon`} className="flex gap-1">
      {TABS.map(([path, words]) => (
        <NavLink
          key={path}
          end
          to={`/coupons/${String(id)}${path}`}
          className={({ isActive }) =>
            `rounded-sm px-2.5 py-1 font-head text-[15px] ${isActive ? 'bg-accent text-on-accent' : 'text-accent hover:bg-accent-soft'}`
          }
        >
          {words}
        </NavLink>
      ))}
    </nav>
  )
}
