import type { RouteObject } from 'react-router'

/** Fetched when it is opened. */
export const benchRoutes: RouteObject[] = [
  { path: 'bench', lazy: async () => ({ Component: (await import('./BenchPage')).BenchPage }) },
]
