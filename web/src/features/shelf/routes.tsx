import type { RouteObject } from 'react-router'

/** Fetched when it is opened: the desk and the booth need none of it. */
const lazy = async () => ({ Component: (await import('./ShelfPage')).ShelfPage })

export const shelfRoutes: RouteObject[] = [
  { path: 'shelf', lazy },
  { path: 'shelf/:tab', lazy },
]
