/** The other end of `inWorkers`. */
export { compute, library, pdf } from './tasks'
