export { recordingRoutes } from './routes'
export { RecordingsPanel } from './RecordingsPanel'
