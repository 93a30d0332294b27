import type { RouteObject } from 'react-router'

export const crewRoutes: RouteObject[] = [
  { path: 'crew', lazy: async () => ({ Component: (await import('./CrewPage')).CrewPage }) },
  { path: 'crew/due', lazy: async () => ({ Component: (await import('./DuePage')).DuePage }) },
  { path: 'crew/positions', lazy: async () => ({ Component: (await import('./PositionsPage')).PositionsPage }) },
  { path: 'crew/joints', lazy: async () => ({ Component: (await import('./JobCrewPage')).JobCrewPage }) },
  { path: 'crew/who-may', lazy: async () => ({ Component: (await import('./WhoMayPage')).WhoMayPage }) },
  { path: 'crew/:memberId', lazy: async () => ({ Component: (await import('./MemberPage')).MemberPage }) },
]
