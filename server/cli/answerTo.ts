import { join } from 'node:path'
import { ExplainedError } from '@uvanta/core/errors'
import { compute, computationNamed, computations } from '@uvanta/core/registry'
import { loadLibrary } from '../library/load'

/** What the command line says of a computation, and whether that is a fault. */
export interface Said {
  readonly text: string
  readonly fault?: true
}

/**
 * One computation, without server or database.
 * @param name of the computation; without it, all are listed
 * @param input reads the input, JSON
 * @param root where the library is
 */
export function answerTo(name: string | undefined, input: () => string, root: string): Said {
  if (!name)
    return { text: computations.map((c) => `${c.name.padEnd(26)} ${c.summary}`).join('\n') }
  try {
    const definition = computationNamed(name)
    const given: unknown = JSON.parse(input())
    const result = compute(definition, given, loadLibrary(join(root, 'library')))
    return { text: JSON.stringify(result, null, 2) }
  } catch (error) {
    if (error instanceof SyntaxError)
      return { text: `The input is not JSON: ${error.message}`, fault: true }
    if (error instanceof ExplainedError) return { text: error.message, fault: true }
    throw error
  }
}
