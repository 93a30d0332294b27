import type { RouteObject } from 'react-router'

/** Fetched when it is opened. */
export const beadRoutes: RouteObject[] = [
  { path: 'try', lazy: async () => ({ Component: (await import('./TryPage')).TryPage }) },
]
