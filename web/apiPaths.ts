import { execFileSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import type { Plugin } from 'vite'

const NAME = 'virtual:api'
const script = fileURLToPath(new URL('../scripts/api-paths.ts', import.meta.url))

/** Gives pages the calls of the contract by method and path, without their schemas (`scripts/api-paths.ts`). */
export function apiPaths(): Plugin {
  return {
    name: 'api-paths',
    resolveId: (id) => (id === NAME ? `\0${NAME}` : undefined),
    load: (id) =>
      id === `\0${NAME}`
        ? `export const api = ${execFileSync(process.execPath, ['--import', 'tsx', script], { encoding: 'utf8' })}`
        : undefined,
  }
}
