export { procedureRoutes } from './routes'
