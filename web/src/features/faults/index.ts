export { faultRoutes } from './routes'
