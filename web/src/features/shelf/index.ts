export { shelfRoutes } from './routes'
export { recordsQuery } from './queries'
