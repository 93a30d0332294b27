export { peopleRoutes } from './routes'
