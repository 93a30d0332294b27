import type { RouteObject } from 'react-router'

import { BenchPage } from './BenchPage'

export const benchRoutes: RouteObject[] = [{ path: 'bench', element: <BenchPage /> }]
