import type { RouteObject } from 'react-router'

import { ProcedurePage } from './ProcedurePage'
import { ProceduresPage } from './ProceduresPage'

export const procedureRoutes: RouteObject[] = [
  { path: 'procedures', element: <ProceduresPage /> },
  { path: 'procedures/:id', element: <ProcedurePage /> },
]
