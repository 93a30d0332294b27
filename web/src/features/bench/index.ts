export { benchRoutes } from './routes'
export { decodeQuery } from './queries'
