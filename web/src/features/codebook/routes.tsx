import type { RouteObject } from 'react-router'

export const codebookRoutes: RouteObject[] = [
  { path: 'book', lazy: async () => ({ Component: (await import('./BookPage')).BookPage }) },
]
