export { AddJob } from './AddJob'
export { JobSettings } from './JobSettings'
