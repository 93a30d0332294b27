export { operationsRoutes } from './routes'
