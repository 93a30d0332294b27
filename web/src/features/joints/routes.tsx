import type { RouteObject } from 'react-router'

export const jointRoutes: RouteObject[] = [
  { path: 'joints', lazy: async () => ({ Component: (await import('./ListPage')).ListPage }) },
  { path: 'joints/coverage', lazy: async () => ({ Component: (await import('./CoveragePage')).CoveragePage }) },
  { path: 'joints/coupons', lazy: async () => ({ Component: (await import('./CouponsPlanPage')).CouponsPlanPage }) },
  { path: 'joints/wps', lazy: async () => ({ Component: (await import('./WpsPage')).WpsPage }) },
  { path: 'joints/totals', lazy: async () => ({ Component: (await import('./TotalsPage')).TotalsPage }) },
]
