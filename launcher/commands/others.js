import { createInterface } from 'node:readline/promises'
import { join, resolve } from 'node:path'
import { execa } from 'execa'
import { needBuild } from '../build.js'
import { LauncherError, say } from '../output.js'
import { ROOT } from '../packages.js'
import { askHidden, standardInput } from '../passphrase.js'
import { DATABASE_PROGRAMS, needPrograms } from '../programs.js'
import { needData, withRecord } from '../running.js'
import { answerOf, asOwner, server, verified } from '../server.js'
import { gaugeOf, portFor, prepare } from './start.js'

/** @typedef {import('../settings.js').Installation} Installation */

/** Sets up what is missing, and runs nothing. @param {Installation} installation */
export async function install(installation) {
  await needPrograms(installation, DATABASE_PROGRAMS)
  await needBuild(installation)
  say('Ready to start.')
}

/**
 * Makes somebody administrator, or gives the administrator a new password.
 * @param {Installation} installation
 * @param {string} name
 */
export async function admin(installation, name) {
  needData(installation)
  await needBuild(installation)
  await withRecord(installation, async (open) => {
    const password = process.stdin.isTTY
      ? await askHidden(`Password for ${name}:`)
      : await standardInput()
    await server(open, ['admin', name], password)
  })
}

/** What is asked for by `admin setup`, in this order. */
const ASKED = {
  name: 'Name of the utility, as on certificates',
  authority: 'Authority that the certificates are for',
  certificatePrefix: 'What the numbers of certificates begin with (capital letters)',
  address: 'Postal address',
  phone: 'Telephone for questions about a certificate',
  timeZone: 'Time zone of legal dates, as Europe/Paris',
  gaugePressureUnit: 'Unit of pressures',
  differentialUnit: 'Unit of differentials',
}

/**
 * Says what the utility is: asked for at the terminal, or JSON on standard input.
 * @param {Installation} given
 */
export async function setup(given) {
  needData(given)
  await needBuild(given)
  return withRecord(given, async (open) => {
    const current = JSON.parse(await answerOf(open, ['settings']))
    const wanted = process.stdin.isTTY ? await askEach(current) : await standardInput()
    const changed = JSON.parse(await answerOf(open, ['settings', '--change'], wanted))
    say(
      changed.missing.length === 0
        ? `Certificates are issued in the name of ${changed.name}, with numbers ${changed.certificatePrefix}-….`
        : `Still missing: ${changed.missing.join(', ')}.`,
    )
    return changed
  })
}

/** @param {Record<string, string>} current @returns {Promise<string>} JSON */
async function askEach(current) {
  const terminal = createInterface({ input: process.stdin, output: process.stderr })
  /** @type {Record<string, string>} */
  const wanted = {}
  for (const [field, question] of Object.entries(ASKED)) {
    const now = current[field]
    const answer = await terminal.question(now ? `${question} [${now}]: ` : `${question}: `)
    wanted[field] = answer.trim() || now || ''
  }
  terminal.close()
  return JSON.stringify(wanted)
}

/** Runs with hot reload of web and server. @param {Installation} given */
export async function dev(given) {
  const { build, installation, kind } = await prepare(given, 'dev', false)
  await build.pages
  const gauge = kind === 'demo' ? await gaugeOf(installation) : null
  const { env } = gauge?.installation ?? installation
  say('  Uvanta in development is at  http://127.0.0.1:5173')
  await execa(
    join(ROOT, 'node_modules/.bin/concurrently'),
    ['--kill-others', '--names', 'server,web', 'tsx watch server/main.ts', 'npm run dev -w web'],
    {
      cwd: ROOT,
      env: {
        ...env,
        UVANTA_PORT: String(await portFor(installation, kind)),
        PATH: `${join(ROOT, 'node_modules/.bin')}:${env.PATH}`,
      },
      stdio: 'inherit',
      reject: false,
    },
  )
}

/**
 * Runs a computation on standard input, without database.
 * @param {Installation} installation
 * @param {string[]} words
 */
export async function compute(installation, words) {
  await needBuild(installation)
  const { exitCode } = await execa(
    process.execPath,
    [join(ROOT, 'server/dist/compute.js'), ...words],
    { env: installation.env, stdio: 'inherit', reject: false },
  )
  process.exitCode = exitCode ?? 1
}

/** Looks for anything that was changed behind Uvanta’s back. @param {Installation} given */
export async function verifyChain(given) {
  needData(given)
  await needBuild(given)
  const found = await withRecord(given, verified)
  if (found.faults.length > 0) process.exitCode = 1
  return found
}

/**
 * Writes everything that a utility takes along, in formats that need no program of ours.
 * @param {Installation} given
 * @param {string} directory
 */
export async function exportRecords(given, directory) {
  needData(given)
  await needBuild(given)
  const to = resolve(directory)
  const found = JSON.parse(await withRecord(given, (open) => answerOf(open, ['export', to])))
  say(
    `Exported to ${to}: ${found.visits} visits, ${found.certificates} certificates, ${found.photographs} photographs. Read README.md there.`,
  )
  if (found.altered > 0) {
    say(`${found.altered} papers were altered and are left out: run ./uvanta verify-chain.`)
    process.exitCode = 1
  }
  return { ...found, directory: to }
}

/** Signs with a new key from the next start on. @param {Installation} given */
export async function renewKey(given) {
  needData(given)
  await needBuild(given)
  await withRecord(given, (open) => server(open, ['renew-key']))
}

const FEWEST_YEARS = 3

/**
 * Deletes records that are older than they are kept.
 * @param {Installation} given
 * @param {string} words years
 * @param {{ yes?: boolean }} options
 */
export async function forget(given, words, { yes }) {
  if (!/^\d{1,2}$/.test(words))
    throw new LauncherError(
      'say for how many years records are kept, as the local code has it: ./uvanta forget YEARS',
    )
  const years = Number(words)
  if (years < FEWEST_YEARS) throw new LauncherError('records are kept for three years at the least')
  needData(given)
  await needBuild(given)
  const day = new Date()
  day.setUTCFullYear(day.getUTCFullYear() - years)
  const until = day.toISOString().slice(0, 10)
  await withRecord(given, async (open) => {
    const owner = asOwner(open)
    await server(owner, ['forget', until, '--look'])
    if (!yes) await needAnswer(until)
    await server(owner, ['forget', until])
    say(
      'Backups and copies on other machines still hold what was deleted: delete those of that age as well.',
    )
  })
}

/** @param {string} until */
async function needAnswer(until) {
  if (!process.stdin.isTTY)
    throw new LauncherError('nothing was deleted. With --yes nobody is asked.')
  const terminal = createInterface({ input: process.stdin, output: process.stderr })
  const answer = await terminal.question('Type the day to delete them for good: ')
  terminal.close()
  if (answer !== until) throw new LauncherError('nothing was deleted')
}
