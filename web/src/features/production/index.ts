export { productionRoutes } from './routes'
