import type { RouteObject } from 'react-router'

export const productionRoutes: RouteObject[] = [
  { path: 'production', lazy: async () => ({ Component: (await import('./LogPage')).LogPage }) },
  { path: 'production/rates', lazy: async () => ({ Component: (await import('./RatesPage')).RatesPage }) },
  {
    path: 'production/signatures',
    lazy: async () => ({ Component: (await import('./RegisterPage')).RegisterPage }),
  },
  {
    path: 'production/documentation',
    lazy: async () => ({ Component: (await import('./DocumentationPage')).DocumentationPage }),
  },
  { path: 'production/joint', lazy: async () => ({ Component: (await import('./JointPage')).JointPage }) },
  { path: 'production/welds/:weldId', lazy: async () => ({ Component: (await import('./WeldPage')).WeldPage }) },
]
