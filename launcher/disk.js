import { existsSync, statfsSync } from 'node:fs'
import { dirname } from 'node:path'

/** Megabytes that Uvanta wants to have free. */
export const WANTED_MB = 1024
const SHORT_MB = 500

/** Megabytes that are free on the disk that holds a directory, or will. @param {string} directory */
export function spaceLeft(directory) {
  let at = directory
  while (!existsSync(at)) at = dirname(at)
  const { bavail, bsize } = statfsSync(at)
  return Math.floor((bavail * bsize) / 1e6)
}

/** A sentence for the message of an error when the disk is nearly full, else ''. @param {string} directory */
export function shortOfSpace(directory) {
  const left = spaceLeft(directory)
  return left > SHORT_MB
    ? ''
    : ` The disk of ${directory} has ${left} MB of space left, ${WANTED_MB} are wanted.`
}
