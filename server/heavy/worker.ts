/** The other end of `inWorkers`. */
export { library, pdf } from './tasks'
