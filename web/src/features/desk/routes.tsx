import type { RouteObject } from 'react-router'

import { DeskPage } from './DeskPage'

export const deskRoutes: RouteObject[] = [{ index: true, element: <DeskPage /> }]
