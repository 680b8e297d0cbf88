import { ExplainedError } from '@uvanta/core/errors'
import { compute, computationNamed, computations } from '@uvanta/core/registry'
import { libraryOnDemand } from '../library/load'

/** What the command line says of a computation, and whether that is a fault. */
export interface Said {
  readonly text: string
  readonly fault?: true
}

/**
 * One computation, without server or database.
 * @param name of the computation; without it, all are listed
 * @param input reads the input, JSON
 * @param layers what the library is read from
 */
export function answerTo(
  name: string | undefined,
  input: () => string,
  layers: readonly string[],
): Said {
  if (!name)
    return { text: computations.map((c) => `${c.name.padEnd(26)} ${c.summary}`).join('\n') }
  try {
    const definition = computationNamed(name)
    const given: unknown = JSON.parse(input())
    const result = compute(definition, given, libraryOnDemand(layers))
    return { text: JSON.stringify(result, null, 2) }
  } catch (error) {
    if (error instanceof SyntaxError)
      return { text: `The input is not JSON: ${error.message}`, fault: true }
    if (error instanceof ExplainedError) return { text: error.message, fault: true }
    throw error
  }
}
