export { libraryRoutes } from './routes'
