import { existsSync, type FSWatcher, watch } from 'node:fs'
import type { Library } from '@uvanta/core/library'
import type { DateTime } from 'luxon'
import { readLibrary } from './readLibrary'
import { BadLibraryFile } from './yamlFile'
import type { Database } from '../store/database'
import { keepVersions } from './versions'

/** Reads, checks and proves a library. @throws BadLibraryFile */
type Load = (layers: readonly string[]) => Promise<Library>

/** Files are often written in several strokes. */
const SETTLE_MS = 250

export interface ShelfState {
  readonly loadedAt: string
  /** What is wrong with the files as they stand; the good ones from before stay in force. */
  readonly faults: readonly {
    readonly file: string
    readonly line: number
    readonly message: string
  }[]
}

/**
 * The library as it is in force. Changed files are taken up while the application runs; bad ones are
 * refused as a whole, and the last good version stays.
 */
export class LibraryShelf {
  private watchers: FSWatcher[] = []
  private timer: ReturnType<typeof setTimeout> | undefined
  private loadedAt = ''
  private faults: ShelfState['faults'] = []

  private constructor(
    private readonly layers: readonly string[],
    private readonly db: Database,
    private readonly now: () => DateTime<true>,
    private readonly load: Load,
    private current: Library,
  ) {
    this.loadedAt = now().toISO()
  }

  /**
   * @param keptIn file that keeps what was read, so that the same files are not proved at every start
   * @throws BadLibraryFile when the files cannot be used and nothing else is in force
   */
  static async open(
    layers: readonly string[],
    db: Database,
    now: () => DateTime<true>,
    keptIn: string,
    load: Load,
  ): Promise<LibraryShelf> {
    const library = await keepVersions(db, await readLibrary(layers, keptIn, load), now())
    return new LibraryShelf(layers, db, now, load, library)
  }

  get library(): Library {
    return this.current
  }

  get state(): ShelfState {
    return { loadedAt: this.loadedAt, faults: this.faults }
  }

  /** Takes up the files as they stand now, or says what is wrong with them. */
  async reload(): Promise<ShelfState> {
    try {
      this.current = await keepVersions(this.db, await this.load(this.layers), this.now())
      this.loadedAt = this.now().toISO()
      this.faults = []
    } catch (error) {
      this.faults = faultsOf(error)
    }
    return this.state
  }

  /**
   * Follows the files until `close`.
   * @param takenUp called when changed files have come into force
   */
  follow(takenUp: () => void = () => undefined): void {
    const reload = async () => {
      if ((await this.reload()).faults.length === 0) takenUp()
    }
    const settled = () => {
      clearTimeout(this.timer)
      this.timer = setTimeout(() => void reload(), SETTLE_MS)
    }
    this.watchers = this.layers
      .filter((layer) => existsSync(layer))
      .map((layer) => watch(layer, { recursive: true }, settled))
  }

  close(): void {
    clearTimeout(this.timer)
    for (const watcher of this.watchers) watcher.close()
  }
}

function faultsOf(error: unknown): ShelfState['faults'] {
  if (error instanceof BadLibraryFile) {
    return error.places.map((p) => ({ file: error.file, ...p }))
  }
  // A file that vanished between two strokes, a database that does not answer: nothing that ends the server.
  if (error instanceof Error) {
    return [{ file: '', line: 0, message: error.message }]
  }
  throw error
}
