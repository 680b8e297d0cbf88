import {
  createReadStream,
  createWriteStream,
  cpSync,
  existsSync,
  mkdirSync,
  renameSync,
  rmSync,
  writeFileSync,
  openSync,
  readSync,
  closeSync,
} from 'node:fs'
import { createHash } from 'node:crypto'
import { dirname, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { createGzip } from 'node:zlib'
import { create, extract, list } from 'tar'
import { sql } from '../database.js'
import { kindOf, libraryOf, sitesOf } from '../kind.js'
import { LauncherError } from '../output.js'
import { answerOf, server } from '../server.js'
import { textOf } from '../settings.js'
import { temporaryDirectory } from '../temporary.js'
import { historyOf } from './changes.js'
import { saveKeys } from './keys.js'
import { dumpIn, dumpOf, hashOf, linesOf, withoutOwner } from './dump.js'
import { readIn, scratchDatabase } from './scratch.js'

/** @typedef {import('../settings.js').Installation} Installation */
/** @typedef {import('../database.js').Database} Database */

/**
 * Form of what is written: 1 until November 27, 2026 (plain text, a checksum for each table, no signature), 2 until
 * December 2, 2026 (hash, position and signature), 3 since (with its number in it). All of them are read.
 */
const FORMAT = 3

/** The dump in the directory of an opened backup. @param {string} directory */
export const dumpFile = (directory) => join(directory, 'database.sql.gz')

/**
 * Writes everything that is kept into one file, reads it back into a database of its own and compares.
 * @param {Installation} installation
 * @param {Database} database may be in use meanwhile
 * @param {string} file
 * @returns {Promise<string>} the id of the key that it is signed with
 */
export async function writeBackup(installation, database, file) {
  const { data, env, backups } = installation
  // Beside the data: /tmp may be too small, and is shared.
  const directory = temporaryDirectory(backups)
  mkdirSync(dirname(file), { recursive: true })
  const dump = dumpFile(directory)
  let gtid = ''
  // Hashed on its way, so that what is read back can be held against it.
  const hash = await writeDump(
    dumpOf(database, (position) => (gtid = position)),
    dump,
  )
  writeFileSync(join(directory, 'format'), `${FORMAT}\n`)
  writeFileSync(join(directory, 'hash'), `${hash}\n`)
  writeFileSync(join(directory, 'position'), `${historyOf(installation)} ${gtid}\n`)
  saveKeys(installation, directory)
  if (kindOf(data)) writeFileSync(join(directory, 'kind'), kindOf(data))
  if (existsSync(sitesOf(data))) cpSync(sitesOf(data), join(directory, 'virtual-sites.json'))
  if (existsSync(libraryOf(data)))
    cpSync(libraryOf(data), libraryOf(directory), { recursive: true, dereference: true })
  const scratch = await scratchDatabase(data, env)
  const fault = await readIn(dumpIn(dump), scratch.database, scratch.owner)
  const isSame = !fault && (await saysTheSame(dump, scratch.database))
  await scratch.stop()
  if (!isSame || (await hashOf(dumpIn(dump))) !== hash)
    throw new LauncherError(
      'the backup read back differently; nothing was kept. Look at the disk, then try again.',
    )
  const signedBy = await answerOf(installation, ['sign-backup', directory])
  const part = `${file}.part`
  rmSync(part, { force: true })
  await create({ cwd: directory, file: part, mode: 0o600, portable: true }, namesIn(directory))
  rmSync(directory, { recursive: true })
  renameSync(part, file)
  return signedBy
}

/** @param {string} directory */
const namesIn = (directory) =>
  [
    'database.sql.gz',
    'keys',
    'library',
    'format',
    'hash',
    'position',
    'kind',
    'virtual-sites.json',
    'signature',
  ].filter((name) => existsSync(join(directory, name)))

/** @param {import('./dump.js').Lines} lines @param {string} file @returns {Promise<string>} SHA-256 of the lines */
export async function writeDump(lines, file) {
  const hash = createHash('sha256')
  await pipeline(
    lines,
    async function* (dump) {
      for await (const line of dump) {
        hash.update(line)
        yield line
      }
    },
    createGzip({ level: 4 }),
    createWriteStream(file, { mode: 0o600 }),
  )
  return hash.digest('hex')
}

/**
 * Whether a database holds what a dump says, whoever its triggers belong to.
 * @param {string} dump
 * @param {Database} database
 */
export const saysTheSame = async (dump, database) =>
  (await hashOf(withoutOwner(dumpOf(database)))) === (await hashOf(withoutOwner(dumpIn(dump))))

/** One line for each table, as a backup of the first format holds them. @param {Database} database */
export async function checksumsOf(database) {
  const tables = await sql(
    database,
    "SELECT table_name FROM information_schema.tables WHERE table_schema = 'uvanta' AND table_type = 'BASE TABLE' ORDER BY 1",
  )
  const sums = await sql(
    database,
    tables
      .split('\n')
      .map((table) => `CHECKSUM TABLE uvanta.\`${table}\`;`)
      .join(''),
  )
  return sums
    .split('\n')
    .map((line) => line.replace('uvanta.', '').replace('\t', ' '))
    .join('\n')
}

/**
 * Whether what was read in is what an opened backup holds.
 * @param {string} directory
 * @param {Database} database
 */
export async function isWhole(directory, database) {
  const sums = join(directory, 'checksums')
  if (existsSync(sums)) return (await checksumsOf(database)) === textOf(sums)
  const dump = dumpFile(directory)
  return (
    (await hashOf(dumpIn(dump))) === textOf(join(directory, 'hash')) &&
    (await saysTheSame(dump, database))
  )
}

const ENCRYPTED = 'age-encryption.org/v1'

/** @param {string} file */
export function isEncrypted(file) {
  const begin = Buffer.alloc(ENCRYPTED.length)
  const opened = openSync(file, 'r')
  readSync(opened, begin)
  closeSync(opened)
  return begin.toString() === ENCRYPTED
}

/**
 * Opens a backup into a directory, of whichever version, and checks who signed it and that it is what was signed.
 * @param {Installation} installation
 * @param {string} file
 * @param {{ signedBy: string, trusted: string, passphrase: () => Promise<string> }} how
 * @returns {Promise<string>} the directory
 */
export async function openBackup(installation, file, { signedBy, trusted, passphrase }) {
  const directory = temporaryDirectory(installation.backups)
  const archive = isEncrypted(file) ? join(directory, 'plain.tar') : file
  if (archive !== file)
    await server(installation, ['decrypt', file, archive], await passphrase()).catch(() => {
      throw new LauncherError(
        `${file} does not open with this passphrase, or is damaged; nothing was changed.`,
      )
    })
  /** @type {string[]} */
  const names = []
  await list({ file: archive, onReadEntry: ({ path }) => names.push(path) }).catch(() => undefined)
  const isFirst = names.includes('checksums')
  if (!isFirst && !names.includes('hash'))
    throw new LauncherError(
      `${file} is not a backup of Uvanta, or is damaged; nothing was changed.`,
    )
  const contents = join(directory, 'contents')
  mkdirSync(contents, { mode: 0o700 })
  const known =
    /^(database\.sql(\.gz)?|keys(\/[\w.-]*)?|library(\/.*)?|format|hash|position|signature|kind|virtual-sites\.json|checksums)\/?$/
  await extract({
    file: archive,
    cwd: contents,
    strict: true,
    filter: (path, entry) =>
      known.test(path) && 'type' in entry && (entry.type === 'File' || entry.type === 'Directory'),
  }).catch(() => {
    throw new LauncherError(`${file} is damaged; nothing was changed.`)
  })
  if (archive !== file) rmSync(archive)
  const format = textOf(join(contents, 'format'))
  if (format && !(Number(format) <= FORMAT))
    throw new LauncherError(
      `${file} was written by a newer Uvanta, in format ${format}; this one reads formats 1 to ${FORMAT}. Install the newer version, then restore again. Nothing was changed.`,
    )
  if (isFirst) await readFirstFormat(contents)
  // Before anything of it is read: who wrote it, and whether it is whole.
  const trusting = { ...installation, env: { ...installation.env, UVANTA_TRUSTED: trusted } }
  await server(trusting, ['check-backup', contents, signedBy]).catch(() => {
    throw new LauncherError(`${file} was not put back; nothing was changed.`)
  })
  if (!existsSync(join(contents, 'keys', 'signing.json')) || !existsSync(dumpFile(contents)))
    throw new LauncherError(`${file} is damaged; nothing was changed.`)
  return contents
}

/** @param {string} directory */
async function readFirstFormat(directory) {
  const plain = join(directory, 'database.sql')
  if (!existsSync(plain)) return
  const hash = await writeDump(linesOf(createReadStream(plain)), dumpFile(directory))
  writeFileSync(join(directory, 'hash'), hash)
  rmSync(plain)
}
