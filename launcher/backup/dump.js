import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { createReadStream } from 'node:fs'
import { createGunzip } from 'node:zlib'
import { LauncherError } from '../output.js'

/** @typedef {import('../database.js').Database} Database */
/** @typedef {AsyncIterable<Buffer>} Lines whole lines of a dump, each with its end */

const END = 10

/**
 * Cuts a stream into whole lines. Rows are one line each: what they contain is escaped.
 * @param {AsyncIterable<Buffer>} stream
 * @returns {Lines}
 */
export async function* linesOf(stream) {
  /** @type {Buffer[]} */
  let begun = []
  for await (const chunk of stream) {
    let from = 0
    for (let at = chunk.indexOf(END); at >= 0; at = chunk.indexOf(END, from)) {
      yield Buffer.concat([...begun, chunk.subarray(from, at + 1)])
      begun = []
      from = at + 1
    }
    if (from < chunk.length) begun.push(chunk.subarray(from))
  }
  if (begun.length > 0) yield Buffer.concat(begun)
}

/** Everything that is kept, in an order that is the same each time. */
const DUMP = [
  '--no-defaults',
  '--single-transaction',
  '--hex-blob',
  '--skip-dump-date',
  '--skip-comments',
  '--order-by-primary',
  '--triggers',
]
/** What a dump says of the log of changes at its moment: in the words of a replica, as comments. */
const POSITION = "-- SET GLOBAL gtid_slave_pos='"
const REPLICA = '-- CHANGE MASTER TO '

/**
 * Dumps the record as of one moment. Sessions are included because the log of changes refers to their rows; a
 * restore deletes them. They cannot be used with a dump alone, since the key that signs their cookies stays in the
 * directory.
 * @param {Database} database
 * @param {(gtid: string) => void} [onPosition] receives the position in the log of changes at that moment
 * @returns {Lines}
 * @throws {LauncherError} the dump broke off
 */
export async function* dumpOf({ socket, env }, onPosition) {
  const at = onPosition ? ['--master-data=2', '--gtid'] : []
  const child = spawn('mariadb-dump', [...DUMP, ...at, `--socket=${socket}`, 'uvanta'], {
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const ended = once(child, 'exit')
  for await (const line of linesOf(child.stdout)) {
    if (beginsWith(line, POSITION))
      onPosition?.(line.toString().slice(POSITION.length).replace(/';\n$/, ''))
    else if (!beginsWith(line, REPLICA)) yield line
  }
  const [status] = await ended
  if (status !== 0) throw new LauncherError('the database could not be read to its end.')
}

/** @param {string} file compressed @returns {Lines} */
export const dumpIn = (file) => linesOf(createReadStream(file).pipe(createGunzip()))

const TRIGGER = '/*!50003 CREATE*/'

/** Triggers belong to whoever reads them in. @param {Lines} lines @returns {Lines} */
export async function* withoutOwner(lines) {
  for await (const line of lines)
    yield beginsWith(line, TRIGGER)
      ? Buffer.from(line.toString().replace(/\/\*!50017 DEFINER=`[^`]*`@`[^`]*`\*\/ /g, ''))
      : line
}

/** @param {Buffer} line @param {string} words */
const beginsWith = (line, words) => line.subarray(0, words.length).equals(Buffer.from(words))

/** SHA-256 of lines. @param {Lines} lines */
export async function hashOf(lines) {
  const hash = createHash('sha256')
  for await (const line of lines) hash.update(line)
  return hash.digest('hex')
}
