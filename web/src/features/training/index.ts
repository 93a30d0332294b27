export { trainingRoutes } from './routes'
