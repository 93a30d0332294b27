export { shelfRoutes } from './routes'
