import type { RouteObject } from 'react-router'

export const coverageRoutes: RouteObject[] = [
  { path: 'coupons/:id/range', lazy: async () => ({ Component: (await import('./RangePage')).RangePage }) },
]
