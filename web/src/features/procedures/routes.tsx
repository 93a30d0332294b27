import type { RouteObject } from 'react-router'

import { ProceduresPage } from './ProceduresPage'

/** The list comes with the program; the rest is fetched when it is opened. */
export const procedureRoutes: RouteObject[] = [
  { path: 'procedures', element: <ProceduresPage /> },
  { path: 'procedures/draft', lazy: async () => ({ Component: (await import('./DraftPage')).DraftPage }) },
  { path: 'procedures/compare', lazy: async () => ({ Component: (await import('./ComparePage')).ComparePage }) },
  { path: 'procedures/:id', lazy: async () => ({ Component: (await import('./ProcedurePage')).ProcedurePage }) },
]
