import type { RouteObject } from 'react-router'

export const recordingRoutes: RouteObject[] = [
  {
    path: 'recordings/:id',
    // The chart is heavy, and only this page needs it.
    lazy: async () => ({ Component: (await import('./RecordingPage')).RecordingPage }),
  },
]
