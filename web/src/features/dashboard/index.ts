export { dashboardRoutes } from './routes'
