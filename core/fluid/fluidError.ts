import { ExplainedError } from '../errors'

/** A network that cannot be computed; `element` is the one to mend. */
export class FluidError extends ExplainedError {
  constructor(
    readonly element: string,
    what: string,
  ) {
    super('network-without-solution', `${element}: ${what}.`, `Change ${element} and try again.`)
  }
}
