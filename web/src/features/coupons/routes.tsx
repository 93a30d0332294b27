import type { RouteObject } from 'react-router'

import { CouponPage } from './CouponPage'
import { CouponsPage } from './CouponsPage'

export const couponRoutes: RouteObject[] = [
  { path: 'coupons', element: <CouponsPage /> },
  { path: 'coupons/:id', element: <CouponPage /> },
  { path: 'procedures/:id/scrap', lazy: async () => ({ Component: (await import('./ScrapPage')).ScrapPage }) },
]
