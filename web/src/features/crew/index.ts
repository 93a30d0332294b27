export { crewRoutes } from './routes'
