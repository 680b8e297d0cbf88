export { Job, type JobOptions } from './job'
export { shippedLibrary } from './library'
