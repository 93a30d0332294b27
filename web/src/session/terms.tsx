import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react'

import type { Term } from '../api/types'
import { SessionContext } from './session'

export type Usage = 'aws' | 'iso'
/** Whose words are shown: those of the code in force, or always one's own. */
export type Pin = 'code' | Usage
type Terms = { terms: ReadonlyMap<string, Term>; pin: Pin; setPin: (pin: Pin) => void }

const Context = createContext<Terms>({ terms: new Map(), pin: 'code', setPin: () => undefined })

/** Findings and sheets come from the server in the same words. */
function tellServer(pin: Pin): void {
  document.cookie = `words=${pin}; path=/; max-age=31536000; samesite=lax`
}

/** Keeps the glossary and the person's choice of words. */
export function TermsProvider({ terms, children }: { terms: readonly Term[]; children: ReactNode }) {
  const [pin, choose] = useState<Pin>(() => {
    const kept = localStorage.getItem('words')
    const pinned = kept === 'aws' || kept === 'iso' ? kept : 'code'
    tellServer(pinned)
    return pinned
  })
  const setPin = useCallback((next: Pin) => {
    localStorage.setItem('words', next)
    tellServer(next)
    choose(next)
  }, [])
  const state = useMemo(
    () => ({ terms: new Map(terms.map((one) => [one.key, one])), pin, setPin }),
    [terms, pin, setPin],
  )
  return <Context value={state}>{children}</Context>
}

export function usePin(): [Pin, (pin: Pin) => void] {
  const { pin, setPin } = useContext(Context)
  return [pin, setPin]
}

/** Whose words a page under this code uses; without a code those of ISO. */
export function useUsage(code: string | null | undefined): Usage {
  const { pin } = useContext(Context)
  const codes = useContext(SessionContext)?.codes
  if (pin !== 'code') return pin
  return codes?.find((one) => one.id === code)?.usage ?? 'iso'
}

/** A term by its key in the glossary, in the words of the code in force: `root opening` or `root gap`. */
export function useTerms(code: string | null | undefined): (key: string) => string {
  const { terms } = useContext(Context)
  const usage = useUsage(code)
  return useCallback((key: string) => terms.get(key)?.[usage] ?? key.replaceAll('-', ' '), [terms, usage])
}

/** With a capital, as a label begins. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)
