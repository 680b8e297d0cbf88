import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const here = dirname(fileURLToPath(import.meta.url))

await build({
  absWorkingDir: here,
  entryPoints: { gauge: 'gauge/main.ts' },
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  alias: { '@uvanta/core': join(here, '../core') },
  sourcemap: true,
  logLevel: 'warning',
})
