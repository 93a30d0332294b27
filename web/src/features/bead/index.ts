export { BeadDrawing, halfOf } from './BeadDrawing'
export { beadRoutes } from './routes'
export { TracePanel } from './TracePanel'
export { TrySettings } from './TrySettings'
