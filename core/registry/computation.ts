import type * as yup from 'yup'
import { CannotCompute, ExplainedError } from '../errors'
import type { Library } from '../library'
import { check, InvalidInput } from '../schema'

/**
 * Something the core can work out for a person by itself. The workbench, the HTTP interface, its
 * description and the command line all take it from the registry.
 */
export interface Computation<I = unknown, O = unknown> {
  /** Lower-case words joined by hyphens. */
  readonly name: string
  readonly title: string
  /** What it answers, in a sentence. */
  readonly summary: string
  /** Standard, regulation or text behind the formula. */
  readonly source: string
  readonly input: yup.Schema<I>
  readonly output: yup.Schema<unknown>
  readonly example: NoInfer<I>
  /** It takes tenths of seconds: a server has it worked out beside the thread that answers everybody. */
  readonly heavy?: true
  readonly run: (input: I, library: Library) => O
}

export function computation<I, O>(definition: Computation<I, O>): Computation {
  return definition as unknown as Computation
}

/**
 * Checks the input, then computes.
 * @throws InvalidInput for a malformed input, CannotCompute for one without an answer
 */
export function compute(definition: Computation, input: unknown, library: Library): unknown {
  const checked = check(definition.input, input)
  try {
    return definition.run(checked, library)
  } catch (error) {
    // What the library lacks, or a network that has no solution, is no answer to this question.
    if (!(error instanceof ExplainedError) || error instanceof InvalidInput) throw error
    throw new CannotCompute(error.code, error.why, error.remedy, { cause: error })
  }
}
