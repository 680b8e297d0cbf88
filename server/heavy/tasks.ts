import type { Library } from '@uvanta/core/library'
import { loadLibrary } from '../library/load'
import { BadLibraryFile } from '../library/yamlFile'
import { certificatePdf } from '../service/certificate/pdf'

/** What a worker answers of a file that cannot be used: errors lose what they are on their way. */
export type LibraryRead =
  { readonly library: Library } | { readonly refused: Pick<BadLibraryFile, 'file' | 'places'> }

export const pdf = (asked: Parameters<typeof certificatePdf>): Promise<Uint8Array> =>
  certificatePdf(...asked)

export function library(directory: string): LibraryRead {
  try {
    return { library: loadLibrary(directory) }
  } catch (error) {
    if (!(error instanceof BadLibraryFile)) throw error
    return { refused: { file: error.file, places: error.places } }
  }
}
