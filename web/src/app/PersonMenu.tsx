import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItems } from '@headlessui/react'
import { Suspense, lazy, useState } from 'react'

import { inWords } from '../domain/words'
import { chooseLanguage, LANGUAGES, type Language, language } from '../session/language'
import { useSession } from '../session/session'
import { usePin, type Pin } from '../session/terms'
import { OwnPassword } from './OwnPassword'
import { MenuAction, MenuLink } from '../ui/MenuEntry'

// Opened by few, and seldom: it does not weigh on the first load.
const SessionsDialog = lazy(async () => ({ default: (await import('./SessionsDialog')).SessionsDialog }))

const SecondFactor = lazy(async () => ({ default: (await import('./SecondFactor')).SecondFactor }))
const WithoutNetwork = lazy(async () => ({ default: (await import('./WithoutNetwork')).WithoutNetwork }))

const PINS: readonly [Pin, string][] = [
  ['code', t`Terms of the code in force`],
  ['aws', t`Always AWS terms`],
  ['iso', t`Always ISO terms`],
]

/** Who is signed in: language, terms, keys, password, sessions, and for an administrator the people. */
export function PersonMenu({ onKeys }: { onKeys: () => void }) {
  const { person, signOut, may } = useSession()
  const [changing, setChanging] = useState(false)
  const [sessions, setSessions] = useState(false)
  const [offline, setOffline] = useState(false)
  const [factor, setFactor] = useState(false)
  const [pin, setPin] = usePin()
  return (
    <>
      <Menu>
        <MenuButton className="rounded-sm border border-line bg-panel px-2 py-1 text-[12.5px] whitespace-nowrap text-steel">
          {person.name}
          <span className="max-sm:hidden"> · {inWords(person.role)}</span>
        </MenuButton>
        <MenuItems anchor="bottom end" className="panel z-50 py-1 focus:outline-none">
          <MenuAction onClick={onKeys}>
            <Trans>Show the keys</Trans>
          </MenuAction>
          {(Object.keys(LANGUAGES) as Language[]).map((one) => (
            <MenuAction
              key={one}
              lang={one}

              aria-pressed={language() === one}
              onClick={() => language() !== one && chooseLanguage(one)}
            >
              {LANGUAGES[one]}
              {language() === one ? ' ✓' : ''}
            </MenuAction>
          ))}
          {PINS.map(([one, words]) => (
            <MenuAction key={one} aria-pressed={pin === one} onClick={() => setPin(one)}>
              <span className="inline-block w-4">{pin === one ? '✓' : ''}</span>
              {words}
            </MenuAction>
          ))}
          <MenuAction onClick={() => setChanging(true)}>
            <Trans>Change the password</Trans>
          </MenuAction>
          <MenuAction onClick={() => setFactor(true)}>
            <Trans>Second factor</Trans>
          </MenuAction>
          <MenuAction onClick={() => setSessions(true)}>
            <Trans>Where you are signed in</Trans>
          </MenuAction>
          <MenuAction onClick={() => setOffline(true)}>
            <Trans>Work without a network</Trans>
          </MenuAction>
          {may('KEEP_PEOPLE') && (
            <MenuLink to="/people">
              <Trans>People and access</Trans>
            </MenuLink>
          )}
          {may('KEEP_PEOPLE') && (
            <MenuLink to="/operations">
              <Trans>Operations</Trans>
            </MenuLink>
          )}
          <MenuAction onClick={signOut}>
            <Trans>Sign out</Trans>
          </MenuAction>
        </MenuItems>
      </Menu>
      {sessions && (
        <Suspense>
          <SessionsDialog onClose={() => setSessions(false)} />
        </Suspense>
      )}
      {factor && (
        <Suspense>
          <SecondFactor onClose={() => setFactor(false)} />
        </Suspense>
      )}
      {offline && (
        <Suspense>
          <WithoutNetwork onClose={() => setOffline(false)} />
        </Suspense>
      )}
      {changing && <OwnPassword onClose={() => setChanging(false)} />}
    </>
  )
}
