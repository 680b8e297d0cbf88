import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const here = dirname(fileURLToPath(import.meta.url))

await build({
  absWorkingDir: here,
  entryPoints: {
    main: 'main.ts',
    cli: 'cli/main.ts',
    compute: 'cli/compute.ts',
    worker: 'heavy/worker.ts',
  },
  outdir: 'dist',
  bundle: true,
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  alias: { '@uvanta/core': join(here, '../core'), '@uvanta/contract': join(here, '../contract') },
  define: { 'process.env.UVANTA_BUILD': JSON.stringify(String(Date.now())) },
  sourcemap: true,
  logLevel: 'warning',
})
