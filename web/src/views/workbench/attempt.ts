import { CannotCompute } from '@uvanta/core/errors'

/** An answer of the core, or the sentence with which it declines. */
export function attempt<T>(work: () => T): { readonly answer: T } | { readonly says: string } {
  try {
    return { answer: work() }
  } catch (error) {
    if (error instanceof CannotCompute) return { says: error.message }
    throw error
  }
}
