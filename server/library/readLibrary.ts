import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Library } from '@uvanta/core/library'
import { replaceFile } from '../store/keptFile'

/** Set by the build: what one version of the program checked, another one checks anew. */
const BUILD = process.env.UVANTA_BUILD

interface Kept {
  readonly key: string
  readonly library: Library
}

/**
 * The library of its layers, read, checked and proved; where a file keeps what this build made of the very same
 * files, that is taken.
 * @param keptIn file for what comes out, beside the keys of the data directory
 * @throws BadLibraryFile
 */
export async function readLibrary(
  layers: readonly string[],
  keptIn: string,
  load: (layers: readonly string[]) => Promise<Library>,
  build = BUILD,
): Promise<Library> {
  if (!build) return load(layers)
  const key = keyOf(build, layers)
  const kept = readKept(keptIn)
  if (kept?.key === key) return kept.library
  const library = await load(layers)
  replaceFile(keptIn, JSON.stringify({ key, library } satisfies Kept))
  return library
}

function keyOf(build: string, layers: readonly string[]): string {
  const hash = createHash('sha256').update(build)
  for (const [n, layer] of layers.filter((l) => existsSync(l)).entries()) {
    const files = readdirSync(layer, { recursive: true, encoding: 'utf8' })
    hash.update(`\n${n}\n`)
    for (const file of files.filter((f) => f.endsWith('.yaml')).sort())
      hash.update(`\n${file}\n`).update(readFileSync(join(layer, file)))
  }
  return hash.digest('hex')
}

/** None, where there is none yet or it cannot be read. */
function readKept(file: string): Kept | undefined {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Kept
  } catch {
    return undefined
  }
}
