import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { useQueryClient } from '@tanstack/react-query'
import { Suspense, lazy, useState } from 'react'
import { Link } from 'react-router'

import { inWords } from '../domain/words'
import { sessionQuery } from '../queries/session'
import { chooseLanguage, LANGUAGES, type Language, language } from '../session/language'
import { useSession } from '../session/session'
import { usePin, type Pin } from '../session/terms'

// Opened by few, and seldom: they do not weigh on the first load.
const PasswordDialog = lazy(async () => ({ default: (await import('./PasswordDialog')).PasswordDialog }))
const SessionsDialog = lazy(async () => ({ default: (await import('./SessionsDialog')).SessionsDialog }))

const PINS: readonly [Pin, string][] = [
  ['code', t`Terms of the code in force`],
  ['aws', t`Always AWS terms`],
  ['iso', t`Always ISO terms`],
]

/** Who is signed in: language, terms, keys, password, sessions, and for an administrator the people. */
export function PersonMenu({ onKeys }: { onKeys: () => void }) {
  const { person, signOut, may } = useSession()
  const queries = useQueryClient()
  const [changing, setChanging] = useState(false)
  const [sessions, setSessions] = useState(false)
  const [pin, setPin] = usePin()
  return (
    <>
      <Menu>
        <MenuButton className="rounded-sm border border-line bg-panel px-2 py-1 text-[12.5px] whitespace-nowrap text-steel">
          {person.name}
          <span className="max-sm:hidden"> · {inWords(person.role)}</span>
        </MenuButton>
        <MenuItems anchor="bottom end" className="panel z-50 py-1 focus:outline-none">
          <MenuItem>
            <button
              type="button"
              className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
              onClick={onKeys}
            >
              <Trans>Show the keys</Trans>
            </button>
          </MenuItem>
          {(Object.keys(LANGUAGES) as Language[]).map((one) => (
            <MenuItem key={one}>
              <button
                type="button"
                lang={one}
                className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
                aria-pressed={language() === one}
                onClick={() => language() !== one && chooseLanguage(one)}
              >
                {LANGUAGES[one]}
                {language() === one ? ' ✓' : ''}
              </button>
            </MenuItem>
          ))}
          {PINS.map(([one, words]) => (
            <MenuItem key={one}>
              <button
                type="button"
                className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
                aria-pressed={pin === one}
                onClick={() => setPin(one)}
              >
                <span className="inline-block w-4">{pin === one ? '✓' : ''}</span>
                {words}
              </button>
            </MenuItem>
          ))}
          <MenuItem>
            <button
              type="button"
              className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
              onClick={() => setChanging(true)}
            >
              <Trans>Change the password</Trans>
            </button>
          </MenuItem>
          <MenuItem>
            <button
              type="button"
              className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
              onClick={() => setSessions(true)}
            >
              <Trans>Where you are signed in</Trans>
            </button>
          </MenuItem>
          {may('KEEP_PEOPLE') && (
            <MenuItem>
              <Link className="block px-4 py-1.5 data-focus:bg-accent-soft" to="/people">
                <Trans>People and access</Trans>
              </Link>
            </MenuItem>
          )}
          {may('KEEP_PEOPLE') && (
            <MenuItem>
              <Link className="block px-4 py-1.5 data-focus:bg-accent-soft" to="/operations">
                <Trans>Operations</Trans>
              </Link>
            </MenuItem>
          )}
          <MenuItem>
            <button
              type="button"
              className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
              onClick={signOut}
            >
              <Trans>Sign out</Trans>
            </button>
          </MenuItem>
        </MenuItems>
      </Menu>
      {sessions && (
        <Suspense>
          <SessionsDialog onClose={() => setSessions(false)} />
        </Suspense>
      )}
      {changing && (
        <Suspense>
          <PasswordDialog
            onClose={() => setChanging(false)}
            onDone={(next) => queries.setQueryData(sessionQuery.queryKey, next)}
          />
        </Suspense>
      )}
    </>
  )
}
