import { cpSync, existsSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { isBlank, sql } from '../database.js'
import { kindOf, libraryOf, loadingOf, setKind, sitesOf } from '../kind.js'
import { LauncherError, say, step } from '../output.js'
import { openDatabase } from '../running.js'
import { secret } from '../secrets.js'
import { asOwner, server, verified } from '../server.js'
import { installationAt, textOf } from '../settings.js'
import { dayAndTime, nameOfNow } from './names.js'
import {
  beginHistory,
  collectChanges,
  follow,
  furthestLog,
  historyOf,
  saveChanges,
  usualChanges,
} from './changes.js'
import { dumpFile, isWhole, openBackup, saysTheSame, writeBackup, writeDump } from './file.js'
import { dumpIn, dumpOf } from './dump.js'
import { keysAfter, putKeysBack } from './keys.js'
import { readIn, scratchDatabase } from './scratch.js'

/** @typedef {import('../settings.js').Installation} Installation */

/**
 * @typedef {object} RestoreOptions
 * @property {Date} [until] moment up to which changes after the backup are followed
 * @property {string} changes directory of the log of changes
 * @property {string} signedBy key that is trusted besides those of this installation; `none`; ''
 * @property {string} trusted file of the keys that are known here
 * @property {boolean} dryRun tries all of it and replaces nothing
 * @property {() => Promise<string>} passphrase
 * @property {string} again words of the command that goes on with it when it is broken off
 */

/**
 * Replaces database and keys of the record by those of a backup. The backup is read in and followed in a database of
 * its own before anything is touched; only what came of that is read into the record, by the owner of its schema.
 * @param {Installation} given
 * @param {string} file
 * @param {RestoreOptions} options
 */
export async function restore(given, file, options) {
  const { data, backups } = given
  const restoring = join(data, 'restoring')
  const contents = await openBackup(given, file, options)
  needSameKind(data, file, contents)
  const changes = options.until ? changesOf(given, file, contents, options) : null
  // Without a migration of what is there: a restore is the way out when that fails.
  const { installation, database, isServing, logs } = await openDatabase(given)
  if (isServing) throw new LauncherError('stop Uvanta first (Ctrl-C where it runs), then restore.')
  const goesOn = existsSync(restoring)
  // Changes that were not copied yet. After a restore that was broken off, the log is no longer that of the record.
  if (changes && !goesOn) await saveChanges(installation, logs, usualChanges(installation))
  const keys = keysAfter(dirname(options.trusted), contents)
  const { dump, checked } = await provedDump(installation, file, contents, changes, keys, options)
  const asOf = options.until
    ? `, with the changes that were copied up to ${dayAndTime(options.until)} UTC`
    : ''
  if (options.dryRun) {
    say(`${file} can be put back${asOf}. Nothing was changed.`)
    return { file, dryRun: true }
  }
  if (!goesOn && !(await isBlank(database))) {
    const kept = join(backups, `before-restore-${nameOfNow()}.tar`)
    await writeBackup(installation, database, kept)
    // The log is at its end with this restore; whoever chose the wrong moment chooses another one.
    await saveChanges(installation, logs, usualChanges(installation))
    step(
      `What was there is kept in ${kept}, every change before it in ${usualChanges(installation)}`,
    )
  }
  // From here on a restore that is broken off is done again before anything else.
  writeFileSync(restoring, options.again)
  // A demo that was loaded in part is no reason any more to begin anew.
  rmSync(loadingOf(data), { force: true })
  const owner = {
    port: Number(installation.env.UVANTA_DB_PORT),
    name: 'uvanta_owner',
    password: secret(installation, 'db-owner-password'),
    env: installation.env,
  }
  const fault = await readIn(dumpIn(dump), database, owner)
  if (fault || !(await saysTheSame(dump, database)))
    throw new LauncherError(
      `the database could not be read in. Look at the disk, then run it again:  ./uvanta restore ${options.again}`,
    )
  // Nobody is signed in after a restore.
  await sql(database, 'DELETE FROM uvanta.session')
  putKeysBack(installation, keys)
  await beginHistory(installation, database)
  putKindBack(data, contents, options)
  putLibraryBack(data, contents)
  const restored = {
    ...installation,
    env: { ...installation.env, UVANTA_KIND: kindOf(data) },
  }
  await server(asOwner(restored), ['migrate'])
  rmSync(restoring)
  say(`Restored from ${file}${asOf}.`)
  return { file, until: options.until?.toISOString(), ...checked }
}

/**
 * Demo and record never meet: neither is put back where the other one is.
 * @param {string} data
 * @param {string} file
 * @param {string} contents
 */
function needSameKind(data, file, contents) {
  const [here, there] = [kindOf(data), textOf(join(contents, 'kind'))]
  if (!here || !there || here === there) return
  const words = { own: 'the record of a utility', demo: 'the demo' }
  throw new LauncherError(
    `${file} holds ${words[/** @type {'own' | 'demo'} */ (there)]}, and ${words[here]} is in ${data}. Put it back into another directory: ./uvanta --data DIRECTORY restore FILE`,
  )
}

/**
 * Where the log of changes of a backup is, and where it goes on.
 * @param {Installation} installation
 * @param {string} file
 * @param {string} contents
 * @param {RestoreOptions} options
 */
function changesOf(installation, file, contents, { changes }) {
  const [history, gtid = ''] = textOf(join(contents, 'position')).split(' ')
  if (!history)
    throw new LauncherError(
      `${file} does not say where its log of changes goes on: it was written by an earlier version.`,
    )
  const places = [changes, usualChanges(installation)]
  if (!existsSync(join(changes, history)) && historyOf(installation) !== history)
    throw new LauncherError(
      `there is no log of changes for this backup in ${changes}; nothing was changed.`,
    )
  return { places, history, gtid }
}

/**
 * Reads a backup into a database of its own, compares it there, follows what was changed after it, and verifies every
 * chain and certificate of what came of that.
 * @param {Installation} installation
 * @param {string} file
 * @param {string} contents
 * @param {{ places: string[], history: string, gtid: string } | null} changes
 * @param {string} keys directory of data with the keys that it will have
 * @param {RestoreOptions} options
 * @returns the dump that is to be put back, and what was checked
 */
async function provedDump(installation, file, contents, changes, keys, { until, passphrase }) {
  const scratch = await scratchDatabase(installation.data, installation.env)
  const dump = dumpFile(contents)
  const fault = await readIn(dumpIn(dump), scratch.database, scratch.owner)
  if (fault) throw new LauncherError(`${file} is damaged; nothing was changed.`)
  if (!(await isWhole(contents, scratch.database)))
    throw new LauncherError(`${file} does not hold what it says; nothing was changed.`)
  let proved = dump
  if (changes && until) {
    step(`Following what was changed after it, until ${dayAndTime(until)} UTC`)
    const { places, history, gtid } = changes
    const logs = await collectChanges(installation, places, history, passphrase)
    const log = await furthestLog(logs, gtid, until, installation.env)
    const broken = await follow(log, gtid, until, scratch.owner)
    if (broken)
      throw new LauncherError(
        `${file} cannot be followed up to ${dayAndTime(until)} by the log of changes (${broken}): choose an earlier moment, or restore without --until; nothing was changed.`,
      )
    proved = join(contents, 'followed.sql.gz')
    await writeDump(dumpOf(scratch.database), proved)
  }
  const trial = reachingScratch(installation, keys, scratch)
  await server(trial, ['migrate'])
  const { faults, ...checked } = await verified(trial)
  if (faults.length > 0)
    throw new LauncherError(
      `the record in ${file} does not verify. Compare it with an earlier backup; nothing was changed.`,
    )
  await scratch.stop()
  return { dump: proved, checked }
}

/**
 * What the programs of the server need to work on a scratch database, with these keys.
 * @param {Installation} installation
 * @param {string} keys
 * @param {{ owner: import('./scratch.js').Reader, port: number }} scratch
 * @returns {Installation}
 */
const reachingScratch = (installation, keys, { owner, port }) => {
  // What was proved of the library need not be proved again.
  const proved = join(installation.data, 'library.json')
  if (existsSync(proved)) cpSync(proved, join(keys, 'library.json'))
  const trial = installationAt(keys, {
    ...installation.env,
    UVANTA_KIND: kindOf(installation.data) || 'own',
  })
  return {
    ...trial,
    env: {
      ...trial.env,
      UVANTA_DB_PORT: String(port),
      UVANTA_DB_USER: owner.name,
      UVANTA_DB_PASSWORD: owner.password,
      UVANTA_SESSION_SECRET: 'nobody is served',
    },
  }
}

/**
 * Puts back what is not there of the utility’s own library. A file that is there stays: rules change by a new version,
 * and visits find the version that they began with in the record.
 * @param {string} data
 * @param {string} contents
 */
function putLibraryBack(data, contents) {
  const from = libraryOf(contents)
  if (existsSync(from)) cpSync(from, libraryOf(data), { recursive: true, force: false })
}

/**
 * The record of another installation is never the demo’s here, unless it is that of a demo.
 * @param {string} data
 * @param {string} contents
 * @param {RestoreOptions} options
 */
function putKindBack(data, contents, { signedBy }) {
  const sites = join(contents, 'virtual-sites.json')
  const kind = textOf(join(contents, 'kind'))
  if (kind === 'demo' && existsSync(sites)) {
    setKind(data, 'demo')
    cpSync(sites, sitesOf(data))
  } else if (kind === 'own' || signedBy) {
    setKind(data, 'own')
    rmSync(sitesOf(data), { force: true })
  }
}
