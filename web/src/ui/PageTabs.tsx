import { NavLink } from 'react-router'

type Props = { label: string; tabs: readonly (readonly [to: string, words: string])[] }

/** Pages that belong together, each a link. */
export function PageTabs({ label, tabs }: Props) {
  return (
    <nav aria-label={label} className="flex flex-wrap gap-1">
      {tabs.map(([to, words]) => (
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
  )
}
