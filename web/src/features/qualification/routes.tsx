import type { RouteObject } from 'react-router'

/** Fetched when they are opened: the desk and the booth need none of them. */
export const qualificationRoutes: RouteObject[] = [
  { path: 'coupons/:id/tests', lazy: async () => ({ Component: (await import('./EvidencePage')).EvidencePage }) },
  { path: 'coupons/:id/range', lazy: async () => ({ Component: (await import('./RangePage')).RangePage }) },
  { path: 'book', lazy: async () => ({ Component: (await import('./BookPage')).BookPage }) },
]
