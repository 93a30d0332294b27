import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react'

import type { Kind, Range, System } from '../api/types'
import { numberText, rangeText, unitOf } from '../domain/quantity'
import { digits } from './language'

export type Units = {
  system: System
  setSystem: (system: System) => void
  kind: (name: string) => Kind
  value: (value: number, kind: string) => string
  range: (value: Range, kind: string) => string
  unit: (kind: string) => string
}

const Context = createContext<Units | null>(null)

/** Keeps the person's choice of units and writes quantities in them. */
export function UnitsProvider({ kinds, children }: { kinds: Kind[]; children: ReactNode }) {
  const [system, choose] = useState<System>(() => (localStorage.getItem('units') === 'us' ? 'us' : 'si'))
  const setSystem = useCallback((next: System) => {
    localStorage.setItem('units', next)
    choose(next)
  }, [])
  const units = useMemo<Units>(() => {
    const byName = new Map(kinds.map((kind) => [kind.name, kind]))
    const kind = (name: string): Kind => {
      const found = byName.get(name)
      if (!found) throw new Error(`no kind of quantity ${name}`)
      return found
    }
    return {
      system,
      setSystem,
      kind,
      value: (value, name) => digits(numberText(value, kind(name), system)),
      range: (value, name) => digits(rangeText(value, kind(name), system)),
      unit: (name) => unitOf(kind(name), system),
    }
  }, [kinds, system, setSystem])
  return <Context value={units}>{children}</Context>
}

export function useUnits(): Units {
  const units = useContext(Context)
  if (!units) throw new Error('UnitsProvider is missing')
  return units
}
