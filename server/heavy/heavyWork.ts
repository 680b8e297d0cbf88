import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { CannotCompute } from '@uvanta/core/errors'
import type { Library } from '@uvanta/core/library'
import { compute, computationNamed } from '@uvanta/core/registry'
import { InvalidInput } from '@uvanta/core/schema'
import { Piscina } from 'piscina'
import { loadLibrary } from '../library/load'
import { BadLibraryFile } from '../library/yamlFile'
import type { certificatePdf } from '../service/certificate/pdf'
import type { Computed, LibraryRead } from './tasks'

/** Work of tenths of seconds and more, in which the thread that answers everybody would answer nobody. */
export interface HeavyWork {
  readonly pdf: (...asked: Parameters<typeof certificatePdf>) => Promise<Buffer>
  /** Reads, checks and proves the library. @throws BadLibraryFile */
  readonly library: (layers: readonly string[]) => Promise<Library>
  /**
   * Answers a computation of the registry.
   * @param whileAsked aborted when nobody waits for the answer any more: the work then ends
   * @throws CannotCompute, InvalidInput
   */
  readonly compute: (
    name: string,
    input: unknown,
    library: Library,
    whileAsked: AbortSignal,
  ) => Promise<unknown>
  readonly close: () => Promise<void>
}

/** In the thread that asks: for a program that answers nobody else. */
export const atOnce: HeavyWork = {
  // Read only where a certificate is made in this thread: its fonts and tables take half a second.
  pdf: async (...asked) => (await import('../service/certificate/pdf')).certificatePdf(...asked),
  library: (layers) => Promise.resolve().then(() => loadLibrary(layers)),
  compute: (name, input, library) =>
    Promise.resolve().then(() => compute(computationNamed(name), input, library)),
  close: () => Promise.resolve(),
}

/** A worker that has nothing to do is ended: it holds as much memory as a small process. */
const IDLE_MS = 60_000

/** In threads beside the one that asks. */
export function inWorkers(): HeavyWork {
  const built = import.meta.url.endsWith('.js')
  const threads = () =>
    new Piscina({
      filename: fileURLToPath(new URL(built ? 'worker.js' : 'unbuiltWorker.mjs', import.meta.url)),
      minThreads: 0,
      maxThreads: Math.max(1, availableParallelism() - 1),
      idleTimeout: IDLE_MS,
    })
  const pool = threads()
  // A diagnosis takes many seconds: nobody waits behind it for his paper.
  const computing = threads()
  return {
    async pdf(...asked) {
      return Buffer.from((await pool.run(asked, { name: 'pdf' })) as Uint8Array)
    },
    async library(layers) {
      const read = (await pool.run(layers, { name: 'library' })) as LibraryRead
      if ('refused' in read) throw new BadLibraryFile(read.refused.file, read.refused.places)
      return read.library
    },
    async compute(name, input, library, signal) {
      const said = (await computing.run([name, input, library], {
        name: 'compute',
        signal,
      })) as Computed
      if ('faults' in said) throw new InvalidInput(said.faults)
      if ('refused' in said) {
        const { code, why, remedy } = said.refused
        throw new CannotCompute(code, why, remedy)
      }
      return said.answer
    },
    close: async () => {
      await Promise.all([pool.destroy(), computing.destroy()])
    },
  }
}
