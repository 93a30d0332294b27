export { procedureRoutes } from './routes'
export { FillerHint } from './FillerHint'
export { tungstensQuery } from './queries'
