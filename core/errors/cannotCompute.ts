import { ExplainedError } from './explained'

/** A question that is well formed and still has no answer. */
export class CannotCompute extends ExplainedError {}
