export { BeadDrawing, halfOf } from './BeadDrawing'
export { beadRoutes } from './routes'
export { TrySettings } from './TrySettings'
