import {
  closeSync,
  existsSync,
  fsyncSync,
  linkSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs'
import { dirname } from 'node:path'

/**
 * What a file holds that is made once and read for good. Of two processes that make it at the same moment one
 * prevails for both; a power cut leaves it whole or not there at all. Only its owner reads it.
 */
export function readOrMake(file: string, make: () => string): string {
  if (!existsSync(file)) {
    const own = writeBeside(file, make())
    try {
      linkSync(own, file)
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
    } finally {
      rmSync(own)
    }
    flush(dirname(file))
  }
  return readFileSync(file, 'utf8').trim()
}

/** Writes a file anew: whoever reads it meanwhile, or after a power cut, finds the old text or the new one. */
export function replaceFile(file: string, text: string): void {
  renameSync(writeBeside(file, text), file)
  flush(dirname(file))
}

function writeBeside(file: string, text: string): string {
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 })
  const own = `${file}.${process.pid}.part`
  const handle = openSync(own, 'w', 0o600)
  try {
    writeSync(handle, text)
    fsyncSync(handle)
  } finally {
    closeSync(handle)
  }
  return own
}

function flush(directory: string): void {
  const handle = openSync(directory, 'r')
  try {
    fsyncSync(handle)
  } finally {
    closeSync(handle)
  }
}
