import type { RouteObject } from 'react-router'

import { ShelfPage } from './ShelfPage'

export const shelfRoutes: RouteObject[] = [
  { path: 'shelf', element: <ShelfPage /> },
  { path: 'shelf/:tab', element: <ShelfPage /> },
]
