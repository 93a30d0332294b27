import type { RouteObject } from 'react-router'

import { CouponsPage } from './CouponsPage'

/** The list comes with the program; the rest is fetched when it is opened. */
export const couponRoutes: RouteObject[] = [
  { path: 'coupons', element: <CouponsPage /> },
  { path: 'coupons/:id', lazy: async () => ({ Component: (await import('./CouponPage')).CouponPage }) },
  { path: 'procedures/:id/scrap', lazy: async () => ({ Component: (await import('./ScrapPage')).ScrapPage }) },
]
