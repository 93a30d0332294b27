import type { RouteObject } from 'react-router'

import { ComparePage } from './ComparePage'
import { DraftPage } from './DraftPage'
import { ProcedurePage } from './ProcedurePage'
import { ProceduresPage } from './ProceduresPage'

export const procedureRoutes: RouteObject[] = [
  { path: 'procedures', element: <ProceduresPage /> },
  { path: 'procedures/draft', element: <DraftPage /> },
  { path: 'procedures/compare', element: <ComparePage /> },
  { path: 'procedures/:id', element: <ProcedurePage /> },
]
