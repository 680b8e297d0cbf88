import { statfs } from 'node:fs/promises'
import type { RequestHandler } from 'express'
import { diskFull, sendProblem } from './problem'

/** Bytes that have to be left: the database ends what it began, and makes its files longer by as much at once. */
const LEAST = 64_000_000
/** How long a look at the disk counts, ms. */
const LOOK_MS = 1_000

export type HasRoom = () => Promise<boolean>

/**
 * Whether a disk has room to write. It is looked at before, since the database's log of changes waits for room
 * where there is none, and whoever sent something with it.
 */
export function roomOn(
  directory: string,
  look: (path: string) => Promise<{ bavail: number; bsize: number }> = statfs,
): HasRoom {
  let until = 0
  let last = Promise.resolve(true)
  return () => {
    if (Date.now() < until) return last
    until = Date.now() + LOOK_MS
    last = look(directory).then(
      ({ bavail, bsize }) => bavail * bsize >= LEAST,
      // What cannot be looked at is for the database to say.
      () => true,
    )
    return last
  }
}

/** Refuses to write where there is no room; what is only read is answered. */
export const withRoom =
  (hasRoom: HasRoom): RequestHandler =>
  async (req, res, next) => {
    if (['GET', 'HEAD', 'OPTIONS'].includes(req.method) || (await hasRoom())) return next()
    sendProblem(res, 503, diskFull)
  }
