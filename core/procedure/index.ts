export { asLeftProcedure } from './asLeft'
export { type CheckCost, checkCost } from './checkCost'
export { actionsOf, carriedOut, type HandMove, type StepAction } from './actions'
export { type Expanded, expandProcedure } from './expand'
export { procedureFaults } from './procedureFaults'
export {
  type Observation,
  observations,
  type Procedure,
  type ProcedureFile,
  procedureFileSchema,
  type ProcedureInclude,
  procedureSchema,
  type ProcedureStep,
  type ReadingPoint,
  readingPoints,
  type StepRecord,
} from './types'
