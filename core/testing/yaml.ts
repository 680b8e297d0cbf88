import { createHash, randomUUID } from 'node:crypto'
import { mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from 'yaml'

const root = join(import.meta.dirname, '../..')
const home = join(root, 'library')
/** What the parser read is kept beside the parser: a newer one reads everything anew. */
const parser = JSON.parse(readFileSync(join(root, 'node_modules/yaml/package.json'), 'utf8')) as {
  version: string
}
const kept = join(root, 'node_modules/.cache/uvanta-yaml', parser.version)

/**
 * A shipped file as its text says, for tests. Reading all of them takes seconds, and every test file
 * wants them: what a text says is kept under the hash of the text, so a changed file is read anew.
 * @param path below the library, as families.yaml
 */
export function yamlFile<T>(path: string): T {
  const text = readFileSync(join(home, path), 'utf8')
  const at = join(kept, `${createHash('sha256').update(text).digest('hex')}.json`)
  return (earlier(at) ?? keep(at, parse(text))) as T
}

/** Every shipped file of one folder of the library. */
export const yamlFolder = <T>(folder: string): T[] =>
  readdirSync(join(home, folder))
    .filter((name) => name.endsWith('.yaml'))
    .map((name) => yamlFile<T>(join(folder, name)))

function earlier(at: string): unknown {
  try {
    return JSON.parse(readFileSync(at, 'utf8'))
  } catch {
    return undefined
  }
}

/** Written beside and renamed, because test files run at the same time. */
function keep(at: string, value: unknown): unknown {
  mkdirSync(kept, { recursive: true })
  const beside = `${at}.${randomUUID()}`
  writeFileSync(beside, JSON.stringify(value))
  renameSync(beside, at)
  return value
}
