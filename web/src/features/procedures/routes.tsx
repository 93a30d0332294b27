import type { RouteObject } from 'react-router'

/** Fetched when they are opened. */
export const procedureRoutes: RouteObject[] = [
  { path: 'procedures', lazy: async () => ({ Component: (await import('./ProceduresPage')).ProceduresPage }) },
  { path: 'procedures/draft', lazy: async () => ({ Component: (await import('./DraftPage')).DraftPage }) },
  { path: 'procedures/compare', lazy: async () => ({ Component: (await import('./ComparePage')).ComparePage }) },
  { path: 'procedures/:id', lazy: async () => ({ Component: (await import('./ProcedurePage')).ProcedurePage }) },
]
