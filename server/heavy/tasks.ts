import { CannotCompute } from '@uvanta/core/errors'
import type { Library } from '@uvanta/core/library'
import { compute as answerTo, computationNamed } from '@uvanta/core/registry'
import { type FieldFault, InvalidInput } from '@uvanta/core/schema'
import { loadLibrary } from '../library/load'
import { BadLibraryFile } from '../library/yamlFile'
import { certificatePdf } from '../service/certificate/pdf'

/** What a worker answers of a file that cannot be used: errors lose what they are on their way. */
export type LibraryRead =
  { readonly library: Library } | { readonly refused: Pick<BadLibraryFile, 'file' | 'places'> }

export const pdf = (asked: Parameters<typeof certificatePdf>): Promise<Uint8Array> =>
  certificatePdf(...asked)

export function library(layers: readonly string[]): LibraryRead {
  try {
    return { library: loadLibrary(layers) }
  } catch (error) {
    if (!(error instanceof BadLibraryFile)) throw error
    return { refused: { file: error.file, places: error.places } }
  }
}

/** What a worker answers to a computation. */
export type Computed =
  | { readonly answer: unknown }
  | { readonly refused: Pick<CannotCompute, 'code' | 'why' | 'remedy'> }
  | { readonly faults: readonly FieldFault[] }

export function compute([name, input, library]: readonly [string, unknown, Library]): Computed {
  try {
    return { answer: answerTo(computationNamed(name), input, library) }
  } catch (error) {
    if (error instanceof InvalidInput) return { faults: error.faults }
    if (!(error instanceof CannotCompute)) throw error
    const { code, why, remedy } = error
    return { refused: { code, why, remedy } }
  }
}
