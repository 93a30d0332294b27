import { MenuItem } from '@headlessui/react'
import type { ButtonHTMLAttributes, ReactNode } from 'react'
import { Link } from 'react-router'

/** An entry of a menu that does something. */
export function MenuAction(props: Omit<ButtonHTMLAttributes<HTMLButtonElement>, 'type' | 'className'>) {
  return (
    <MenuItem>
      <button type="button" className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft" {...props} />
    </MenuItem>
  )
}

/** An entry of a menu that leads to a page. */
export function MenuLink({ to, children }: { to: string; children: ReactNode }) {
  return (
    <MenuItem>
      <Link className="block px-4 py-1.5 data-focus:bg-accent-soft" to={to}>
        {children}
      </Link>
    </MenuItem>
  )
}

/** An entry of a menu that opens a sheet in another tab, or downloads a file. */
export function MenuFile({
  href,
  children,
  download = false,
}: {
  href: string
  children: ReactNode
  download?: boolean
}) {
  return (
    <MenuItem>
      <a
        className="block px-4 py-1.5 data-focus:bg-accent-soft"
        href={href}
        {...(download ? { download: '' } : { target: '_blank', rel: 'noreferrer' })}
      >
        {children}
      </a>
    </MenuItem>
  )
}
