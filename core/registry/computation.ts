import type * as yup from 'yup'
import type { Library } from '../library'
import { check } from '../schema'

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
  readonly run: (input: I, library: Library) => O
}

export function computation<I, O>(definition: Computation<I, O>): Computation {
  return definition as unknown as Computation
}

/** A question that is well formed and still has no answer; the message says what to change. */
export class CannotCompute extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'CannotCompute'
  }
}

/**
 * Checks the input, then computes.
 * @throws InvalidInput for a malformed input, CannotCompute for one without an answer
 */
export function compute(definition: Computation, input: unknown, library: Library): unknown {
  return definition.run(check(definition.input, input), library)
}

/** The answer, or what the core says cannot be answered. */
export function answered<T>(work: () => T): T {
  try {
    return work()
  } catch (error) {
    if (error instanceof RangeError) throw new CannotCompute(error.message)
    throw error
  }
}
