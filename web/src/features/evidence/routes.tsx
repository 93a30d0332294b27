import type { RouteObject } from 'react-router'

/** Fetched when they are opened: the dashboard and the booth need none of them. */
export const evidenceRoutes: RouteObject[] = [
  { path: 'coupons/:id/tests', lazy: async () => ({ Component: (await import('./EvidencePage')).EvidencePage }) },
]
