import type { RouteObject } from 'react-router'

export const operationsRoutes: RouteObject[] = [
  { path: 'operations', lazy: async () => ({ Component: (await import('./OperationsPage')).OperationsPage }) },
]
