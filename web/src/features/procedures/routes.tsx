import type { RouteObject } from 'react-router'

import { DraftPage } from './DraftPage'
import { ProcedurePage } from './ProcedurePage'
import { ProceduresPage } from './ProceduresPage'

export const procedureRoutes: RouteObject[] = [
  { path: 'procedures', element: <ProceduresPage /> },
  { path: 'procedures/draft', element: <DraftPage /> },
  { path: 'procedures/compare', lazy: async () => ({ Component: (await import('./ComparePage')).ComparePage }) },
  { path: 'procedures/:id', element: <ProcedurePage /> },
]
