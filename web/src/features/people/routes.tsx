import type { RouteObject } from 'react-router'

export const peopleRoutes: RouteObject[] = [
  { path: 'people', lazy: async () => ({ Component: (await import('./PeoplePage')).PeoplePage }) },
]
