import type { RouteObject } from 'react-router'

/** Fetched when it is opened. */
export const faultRoutes: RouteObject[] = [
  { path: 'faults', lazy: async () => ({ Component: (await import('./FaultsPage')).FaultsPage }) },
]
