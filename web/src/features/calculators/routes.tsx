import type { RouteObject } from 'react-router'

/** Fetched when it is opened. */
export const calculatorRoutes: RouteObject[] = [
  { path: 'calculators', lazy: async () => ({ Component: (await import('./CalculatorsPage')).CalculatorsPage }) },
]
