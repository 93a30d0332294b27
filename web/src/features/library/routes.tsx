import type { RouteObject } from 'react-router'

/** Fetched when it is opened: the dashboard and the booth need none of it. */
const lazy = async () => ({ Component: (await import('./LibraryPage')).LibraryPage })

export const libraryRoutes: RouteObject[] = [
  { path: 'library', lazy },
  { path: 'library/:tab', lazy },
]
