import { readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ExplainedError } from '@uvanta/core/errors'
import { compute, computationNamed, computations } from '@uvanta/core/registry'
import { loadLibrary } from '../library/load'

/** Runs one computation on what stands on standard input, without server or database. */
const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
const name = process.argv[2]

function fail(message: string): never {
  process.stderr.write(`${message}\n`)
  process.exit(1)
}

if (!name) {
  for (const c of computations) process.stdout.write(`${c.name.padEnd(26)} ${c.summary}\n`)
  process.exit(0)
}
try {
  const definition = computationNamed(name)
  const text = readFileSync(0, 'utf8')
  const result = compute(definition, JSON.parse(text), loadLibrary(join(root, 'library')))
  process.stdout.write(`${JSON.stringify(result, null, 2)}\n`)
} catch (error) {
  if (error instanceof SyntaxError) fail(`The input is not JSON: ${error.message}`)
  if (error instanceof ExplainedError) fail(error.message)
  throw error
}
