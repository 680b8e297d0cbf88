import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { connect } from 'node:tls'
import { execa } from 'execa'
import { isCluster } from '../cluster/nodes.js'
import { spaceLeft, WANTED_MB } from '../disk.js'
import { kindOf } from '../kind.js'
import { whoWorksIn } from '../lock.js'
import { say } from '../output.js'
import { freePort } from '../ports.js'
import { DATABASE_PROGRAMS, isThere, TEST_PROGRAMS } from '../programs.js'
import { databaseHome } from '../running.js'
import { textOf } from '../settings.js'

/** @typedef {import('../settings.js').Installation} Installation */
/** @typedef {{ ok: boolean, what: string }} Finding */

/**
 * Says what is missing or wrong, and ends with 1 when something is.
 * @param {Installation} installation
 */
export async function doctor(installation) {
  const isOwn = kindOf(installation.data) === 'own'
  const findings = [
    { ok: true, what: `Node ${process.version}` },
    await npm(installation),
    ...programs(installation),
    await dataOf(installation),
    space(installation),
    ...(isOwn ? [newestBackup(installation), lastDrill(installation)] : []),
    ...(isOwn ? [signingKey(installation), ...(await certificate(installation))] : []),
    ...(await clock(installation)),
    await serving(installation),
  ]
  for (const { ok, what } of findings) say(`  ${ok ? 'ok  ' : 'no  '} ${what}`)
  if (findings.some(({ ok }) => !ok)) process.exitCode = 1
  return { findings }
}

/** @param {Installation} installation @returns {Promise<Finding>} */
async function npm({ env }) {
  const { failed, stdout } = await execa('npm', ['--version'], { env, reject: false })
  return failed
    ? { ok: false, what: 'npm is missing: it comes with Node' }
    : { ok: true, what: `npm ${stdout}` }
}

/** @param {Installation} installation @returns {Finding[]} */
function programs({ env }) {
  return Object.entries({ ...DATABASE_PROGRAMS, ...TEST_PROGRAMS }).map(([program, from]) => {
    const forTests = program in TEST_PROGRAMS ? ' (for tests)' : ''
    return isThere(program, env.PATH ?? '')
      ? { ok: true, what: program }
      : {
          ok: false,
          what: `${program} is missing: apt-get install -y --no-install-recommends ${from}${forTests}`,
        }
  })
}

/** @param {Installation} installation @returns {Promise<Finding>} */
async function dataOf(installation) {
  const { data, env } = installation
  const isThereData = existsSync(join(databaseHome(installation), 'data')) || isCluster(data)
  if (!isThereData) return { ok: true, what: 'no data yet; ./uvanta start makes them' }
  const { stdout } = await execa('du', ['-sh', data], { env, reject: false })
  return { ok: true, what: `data in ${data} (${stdout.split('\t')[0]})` }
}

/** @param {Installation} installation @returns {Finding} */
function space({ data }) {
  const left = spaceLeft(data)
  return left > WANTED_MB
    ? { ok: true, what: `${left} MB free on the disk of ${data}` }
    : { ok: false, what: `only ${left} MB free on the disk of ${data}; ${WANTED_MB} are wanted` }
}

const DAY_MS = 86_400_000
const QUARTER_DAYS = 92

/** @param {string} file */
const daysOld = (file) => (Date.now() - statSync(file).mtimeMs) / DAY_MS

/** @param {Installation} installation @returns {Finding} */
function newestBackup({ backups }) {
  // By the time of the file, since its name can be anything.
  const recent = existsSync(backups)
    ? readdirSync(backups).find((name) => name.includes('.tar') && daysOld(join(backups, name)) < 1)
    : undefined
  return recent
    ? { ok: true, what: `a backup of the last 24 hours: ${join(backups, recent)}` }
    : {
        ok: false,
        what: `no backup of the last 24 hours in ${backups}: if backups are written elsewhere, look there`,
      }
}

/** @param {Installation} installation @returns {Finding} */
function lastDrill({ backups }) {
  const file = join(backups, 'drilled')
  return existsSync(file) && daysOld(file) < QUARTER_DAYS
    ? { ok: true, what: `a backup was last tried on ${textOf(file)}` }
    : { ok: false, what: 'no backup was tried in the last quarter: ./uvanta drill FILE' }
}

const KEY_DAYS = 366

/** @param {Installation} installation @returns {Finding} */
function signingKey({ keys }) {
  const file = join(keys, 'signing.json')
  if (!existsSync(file)) return { ok: true, what: 'no signing key yet; the first start makes it' }
  const days = Math.floor(daysOld(file))
  return days < KEY_DAYS
    ? { ok: true, what: `the signing key is ${days} days old` }
    : { ok: false, what: `the signing key is ${days} days old: ./uvanta renew-key` }
}

const SOON_DAYS = 21

/** The certificate of the proxy, as people’s browsers get it. @param {Installation} installation @returns {Promise<Finding[]>} */
async function certificate({ env }) {
  const address = env.UVANTA_PUBLIC_URL
  if (!address?.startsWith('https:'))
    return [
      {
        ok: false,
        what: 'UVANTA_PUBLIC_URL is no https address: without TLS browsers give no camera and no work offline',
      },
    ]
  const { hostname, port } = new URL(address)
  const expires = await expiryOf(hostname, Number(port || 443))
  if (typeof expires === 'string')
    return [{ ok: false, what: `${address} cannot be asked for its certificate: ${expires}` }]
  const days = Math.floor((expires.getTime() - Date.now()) / DAY_MS)
  return [
    {
      ok: days > SOON_DAYS,
      what: `the certificate of ${hostname} ${days < 0 ? 'has expired' : `expires in ${days} days`}`,
    },
  ]
}

/** @param {string} host @param {number} port @returns {Promise<Date | string>} */
const expiryOf = (host, port) =>
  new Promise((done) => {
    // Only its dates are read: one that is not valid is to be named, not refused.
    const socket = connect({ host, port, servername: host, rejectUnauthorized: false })
    socket.setTimeout(3_000, () => socket.destroy(new Error('no answer')))
    socket.once('error', (error) => done(error.message))
    socket.once('secureConnect', () => {
      done(new Date(socket.getPeerCertificate().valid_to))
      socket.end()
    })
  })

/** Legal times rest on the clock. @param {Installation} installation @returns {Promise<Finding[]>} */
async function clock({ data, backups, env }) {
  const files = [join(data, 'port'), join(backups, 'drilled'), join(data, 'library.json')]
  const ahead = files.find(
    (file) => existsSync(file) && statSync(file).mtimeMs > Date.now() + 60_000,
  )
  if (ahead)
    return [{ ok: false, what: `the clock goes back: ${ahead} was written later than it is now` }]
  const { failed, stdout } = await execa(
    'timedatectl',
    ['show', '-p', 'NTPSynchronized', '--value'],
    { env, reject: false },
  )
  if (failed || !stdout)
    return [
      {
        ok: true,
        what: `the clock says ${new Date().toISOString()}; whether it is set by a time server cannot be asked here`,
      },
    ]
  return [
    stdout === 'yes'
      ? { ok: true, what: 'the clock is set by a time server' }
      : { ok: false, what: 'the clock is not set by a time server: timedatectl set-ntp true' },
  ]
}

/** @param {Installation} installation @returns {Promise<Finding>} */
async function serving({ data, port: wanted }) {
  const holder = await whoWorksIn(data)
  if (holder) return { ok: true, what: `running as process ${holder.pid}` }
  const port = await freePort(wanted)
  return port === wanted
    ? { ok: true, what: `port ${wanted} is free` }
    : { ok: true, what: `port ${wanted} is in use; ${port} would be taken` }
}
