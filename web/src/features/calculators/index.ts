export { calculatorRoutes } from './routes'
export { EquivalentsTable } from './EquivalentsTable'
export { EMPTY_ROW, RunOuts, dialOf, type Row } from './RunOuts'
