import type { RouteObject } from 'react-router'

/** Fetched when they are opened. */
export const couponRoutes: RouteObject[] = [
  { path: 'coupons', lazy: async () => ({ Component: (await import('./CouponsPage')).CouponsPage }) },
  { path: 'coupons/:id', lazy: async () => ({ Component: (await import('./CouponPage')).CouponPage }) },
  { path: 'procedures/:id/scrap', lazy: async () => ({ Component: (await import('./ScrapPage')).ScrapPage }) },
]
