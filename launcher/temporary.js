import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { atEnd } from './cleanup.js'

/** Directories of commands, by this name and the process: `.uvanta-PID-…`. */
const NAME = /^\.uvanta-(\d+)-/

/**
 * Makes a directory for the command alone, which is deleted when it ends. What commands left behind that were
 * killed is deleted first.
 * @param {string} parent
 */
export function temporaryDirectory(parent) {
  mkdirSync(parent, { recursive: true })
  for (const name of readdirSync(parent)) {
    const pid = NAME.exec(name)?.[1]
    if (pid && !existsSync(`/proc/${pid}`)) rmSync(join(parent, name), { recursive: true })
  }
  const directory = mkdtempSync(join(parent, `.uvanta-${process.pid}-`))
  atEnd(() => rmSync(directory, { recursive: true, force: true }))
  return directory
}
