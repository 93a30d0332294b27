import { createContext, useContext } from 'react'

import type { Code, Person } from '../api/types'

export type Action = Person['allowed'][number]

type SessionState = { person: Person; codes: Code[]; signOut: () => void }

export const SessionContext = createContext<SessionState | null>(null)

export function useSession(): SessionState & { may: (action: Action) => boolean } {
  const state = useContext(SessionContext)
  if (!state) throw new Error('no session')
  // The server decides; this only keeps buttons away that it would refuse.
  return { ...state, may: (action) => state.person.allowed.includes(action) }
}
