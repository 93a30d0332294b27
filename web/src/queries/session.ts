import { queryOptions } from '@tanstack/react-query'

import { Refusal, api, unwrap } from '../api/client'

const OWED = 'sign-out-owed'

/** Whether somebody signed out while the server did not answer: it is told before anything else. */
export const isSignOutOwed = (): boolean => localStorage.getItem(OWED) !== null

/** Somebody signed in: what was owed for the one before is settled, whose session ended with that. */
export const signedIn = (): void => localStorage.removeItem(OWED)

/** Sign out at the server; where it does not answer, that is made up for later. */
export async function signOut() {
  localStorage.setItem(OWED, '1')
  try {
    const next = await unwrap(api.DELETE('/api/session'))
    localStorage.removeItem(OWED)
    return next
  } catch (error) {
    // Whose session has ended is signed out.
    if (!(error instanceof Refusal && error.status === 401)) throw error
    localStorage.removeItem(OWED)
    return { person: null, demo: [] }
  }
}

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async () => {
    if (isSignOutOwed()) await signOut()
    return unwrap(api.GET('/api/session'))
  },
  staleTime: Infinity,
})

export const unitsQuery = queryOptions({
  queryKey: ['units'],
  queryFn: () => unwrap(api.GET('/api/units')),
  staleTime: Infinity,
})

export const codesQuery = queryOptions({
  queryKey: ['codes'],
  queryFn: () => unwrap(api.GET('/api/codes')),
  staleTime: Infinity,
})

export const termsQuery = queryOptions({
  queryKey: ['terms'],
  queryFn: () => unwrap(api.GET('/api/terms')),
  staleTime: Infinity,
})

export const jobsQuery = queryOptions({
  queryKey: ['jobs'],
  queryFn: () => unwrap(api.GET('/api/jobs')),
  staleTime: 60_000,
})
