import type { RouteObject } from 'react-router'

/** Fetched when it is opened. */
export const trainingRoutes: RouteObject[] = [
  { path: 'training', lazy: async () => ({ Component: (await import('./TrainingPage')).TrainingPage }) },
]
