export { jointRoutes } from './routes'
