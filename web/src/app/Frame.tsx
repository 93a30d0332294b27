import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItems } from '@headlessui/react'
import { useState } from 'react'
import { NavLink, Outlet, ScrollRestoration, useNavigate } from 'react-router'

import { MenuAction, MenuLink } from '../ui/MenuEntry'
import { Modal } from '../ui/Modal'
import { CODE_PLACE } from '../ui/CodeInForce'
import { ConnectionStrip } from './ConnectionStrip'
import { CommandBox } from './CommandBox'
import { JobMenu } from './JobMenu'
import { NoJobYet } from './NoJobYet'
import { PersonMenu } from './PersonMenu'
import { useJob } from '../session/job'
import { KEYS, useGlobalKeys } from '../session/keys'
import { useSession } from '../session/session'
import { useUnits } from '../session/units'
import { OwnPassword } from './OwnPassword'

const RAIL: readonly [string, string][] = [
  ['/', t`Dashboard`],
  ['/joints', t`Joints`],
  ['/procedures', t`Procedures`],
  ['/coupons', t`Coupons`],
  ['/production', t`Production`],
  ['/crew', t`Crew`],
  ['/try', t`Try a setting`],
  ['/faults', t`Find a fault`],
  ['/calculators', t`Calculators`],
  ['/training', t`Training`],
  ['/library', t`Library`],
  ['/book', t`Code book`],
]

/** What shows the shop beyond a job: of no use to somebody from outside, whom the server refuses it. */
const SHOP = new Set(['/crew', '/training', '/library', '/faults'])

/** Rail, top strip, and the page. */
export function Frame() {
  const navigate = useNavigate()
  const [searching, setSearching] = useState(false)
  const [keysOpen, setKeysOpen] = useState(false)
  const { job } = useJob()
  const { person } = useSession()
  const places = RAIL.filter(([to]) => person.all_jobs || !SHOP.has(to))
  useGlobalKeys({
    go: (to) => void navigate(to),
    search: () => setSearching(true),
    keys: () => setKeysOpen(true),
  })
  return (
    <div className="grid h-screen grid-cols-[92px_minmax(0,1fr)] grid-rows-[48px_minmax(0,1fr)] max-sm:grid-cols-[minmax(0,1fr)]">
      <a href="#page" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-panel focus:p-2">
        <Trans>Skip to the page</Trans>
      </a>
      <nav aria-label={t`Main`} className="row-span-2 border-r border-line bg-rail pt-3 max-sm:hidden">
        <NavLink to="/" className="mb-3 block px-3 font-head text-[15px] leading-tight font-semibold text-accent">
          <Trans>
            Grounded
            <br />
            Bead
          </Trans>
        </NavLink>
        {places.map(([to, words]) => (
          <NavLink
            key={to}
            to={to}
            end={to === '/'}
            className={({ isActive }) =>
              `block border-l-3 px-3 py-2 font-head text-[14.5px] ${isActive ? 'border-accent bg-paper font-semibold text-ink' : 'border-transparent font-medium text-steel hover:text-ink'}`
            }
          >
            {words}
          </NavLink>
        ))}
      </nav>
      <header className="flex items-center gap-3 border-b border-line px-4 max-sm:gap-2 max-sm:px-2">
        <PlacesMenu places={places} onSearch={() => setSearching(true)} />
        <JobMenu />
        <span id={CODE_PLACE} className="max-[1000px]:hidden" />
        <button
          type="button"
          className="field ml-auto flex w-56! shrink-0 items-center justify-between text-[13px] text-steel2 max-sm:hidden!"
          onClick={() => setSearching(true)}
        >
          <Trans>
            Search or run a command <kbd className="font-sans">Ctrl K</kbd>
          </Trans>
        </button>
        <span className="ml-auto hidden max-sm:block" />
        <UnitSwitch />
        <PersonMenu onKeys={() => setKeysOpen(true)} />
      </header>
      <main id="page" className="min-h-0 min-w-0 overflow-y-auto" tabIndex={-1}>
        <ConnectionStrip />
        <PasswordNotice />
        <FactorNotice />
        <NoJobYet />
        <Outlet />
      </main>
      <CommandBox
        open={searching}
        onClose={() => setSearching(false)}
        onKeys={() => setKeysOpen(true)}
        job={job ?? null}
      />
      <Modal title={t`Keys`} open={keysOpen} onClose={() => setKeysOpen(false)}>
        <dl className="grid grid-cols-[9rem_1fr] gap-x-4 gap-y-1.5 text-[13px]">
          {KEYS.map(([key, words]) => (
            <div key={key} className="contents">
              <dt className="font-semibold">{key}</dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
      </Modal>
      <ScrollRestoration />
    </div>
  )
}

/** On a phone the rail is a menu, so that the page has the height. */
function PlacesMenu({ places, onSearch }: { places: readonly [string, string][]; onSearch: () => void }) {
  return (
    <Menu>
      <MenuButton
        aria-label={t`Pages`}
        className="grid size-9 shrink-0 place-items-center rounded-sm border border-line bg-panel sm:hidden"
      >
        <svg viewBox="0 0 16 16" className="size-4" aria-hidden="true">
          <path d="M1 3h14M1 8h14M1 13h14" stroke="currentColor" strokeWidth="1.6" />
        </svg>
      </MenuButton>
      <MenuItems anchor="bottom start" className="panel z-50 min-w-52 py-1 text-[16px] focus:outline-none">
        <MenuAction onClick={onSearch}>
          <Trans>Search or run a command</Trans>
        </MenuAction>
        {places.map(([to, words]) => (
          <MenuLink key={to} to={to}>
            {words}
          </MenuLink>
        ))}
      </MenuItems>
    </Menu>
  )
}

/** A password that somebody else chose signs nothing: said before it stands in the way. */
function PasswordNotice() {
  const { person, may } = useSession()
  const [changing, setChanging] = useState(false)
  if (person.password_own || !(may('SIGN_RECORD') || may('WITNESS') || may('RELEASE'))) return null
  return (
    <>
      <p className="border-b border-line bg-note px-5 py-1.5 text-[13px]">
        <Trans>An administrator set your password and knows it. Nothing can be signed with it: </Trans>
        <button type="button" className="link" onClick={() => setChanging(true)}>
          <Trans>change the password</Trans>
        </button>
        .
      </p>
      {changing && <OwnPassword onClose={() => setChanging(false)} />}
    </>
  )
}

/** A second factor that the shop asks for and that is not there yet. */
function FactorNotice() {
  const { person } = useSession()
  if (!person.factor_due) return null
  return (
    <p className="border-b border-line bg-note px-5 py-1.5 text-[13px]">
      <Trans>
        Your shop asks for a second factor. Until you set it up (menu under your name), nothing can be signed.
      </Trans>
    </p>
  )
}

function UnitSwitch() {
  const { system, setSystem } = useUnits()
  return (
    <div
      role="radiogroup"
      aria-label={t`Units shown`}
      className="flex shrink-0 overflow-hidden rounded-sm border border-line bg-panel text-[13px]"
    >
      {(['si', 'us'] as const).map((one) => (
        <button
          type="button"
          key={one}
          role="radio"
          aria-checked={system === one}
          className={`px-2.5 py-1 ${system === one ? 'bg-ink font-medium text-paper' : 'text-steel2'}`}
          onClick={() => setSystem(one)}
        >
          {one === 'si' ? 'mm' : 'in'}
        </button>
      ))}
    </div>
  )
}
