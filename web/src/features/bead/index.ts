export { beadRoutes } from './routes'
export { TrySettings } from './TrySettings'
