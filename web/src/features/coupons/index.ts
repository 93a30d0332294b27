export { couponRoutes } from './routes'
