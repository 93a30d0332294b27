import type { RouteObject } from 'react-router'

import { BookPage } from './BookPage'
import { EvidencePage } from './EvidencePage'
import { RangePage } from './RangePage'

export const qualificationRoutes: RouteObject[] = [
  { path: 'coupons/:id/tests', element: <EvidencePage /> },
  { path: 'coupons/:id/range', element: <RangePage /> },
  { path: 'book', element: <BookPage /> },
]
