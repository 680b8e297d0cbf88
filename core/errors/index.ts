export { CannotCompute } from './cannotCompute'
export { ExplainedError } from './explained'
