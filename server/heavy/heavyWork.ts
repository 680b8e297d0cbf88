import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import type { Library } from '@uvanta/core/library'
import { Piscina } from 'piscina'
import { loadLibrary } from '../library/load'
import { BadLibraryFile } from '../library/yamlFile'
import type { certificatePdf } from '../service/certificate/pdf'
import type { LibraryRead } from './tasks'

/** Work of tenths of seconds and more, in which the thread that answers everybody would answer nobody. */
export interface HeavyWork {
  readonly pdf: (...asked: Parameters<typeof certificatePdf>) => Promise<Buffer>
  /** Reads, checks and proves the library. @throws BadLibraryFile */
  readonly library: (directory: string) => Promise<Library>
  readonly close: () => Promise<void>
}

/** In the thread that asks: for a program that answers nobody else. */
export const atOnce: HeavyWork = {
  // Read only where a certificate is made in this thread: its fonts and tables take half a second.
  pdf: async (...asked) => (await import('../service/certificate/pdf')).certificatePdf(...asked),
  library: (directory) => Promise.resolve().then(() => loadLibrary(directory)),
  close: () => Promise.resolve(),
}

/** A worker that has nothing to do is ended: it holds as much memory as a small process. */
const IDLE_MS = 60_000

/** In threads beside the one that asks. */
export function inWorkers(): HeavyWork {
  const built = import.meta.url.endsWith('.js')
  const pool = new Piscina({
    filename: fileURLToPath(new URL(built ? 'worker.js' : 'unbuiltWorker.mjs', import.meta.url)),
    minThreads: 0,
    maxThreads: Math.max(1, availableParallelism() - 1),
    idleTimeout: IDLE_MS,
  })
  return {
    async pdf(...asked) {
      return Buffer.from((await pool.run(asked, { name: 'pdf' })) as Uint8Array)
    },
    async library(directory) {
      const read = (await pool.run(directory, { name: 'library' })) as LibraryRead
      if ('refused' in read) throw new BadLibraryFile(read.refused.file, read.refused.places)
      return read.library
    },
    close: () => pool.destroy(),
  }
}
