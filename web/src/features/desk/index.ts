export { deskRoutes } from './routes'
