import { createWriteStream, existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { execa } from 'execa'
import { needBuild } from '../build.js'
import { LauncherError, say, step } from '../output.js'
import { ROOT } from '../packages.js'
import { hasEnded, startProgram, stopProgram } from '../processes.js'
import { CLUSTER_PROGRAMS, DATABASE_PROGRAMS, needPrograms, TEST_PROGRAMS } from '../programs.js'
import { textOf } from '../settings.js'

/** @typedef {import('../settings.js').Installation} Installation */
/** @typedef {{ name: string, passed: number, failed: number, log: string }} Outcome */

const OUT = join(ROOT, '.uvanta/test')
const LINES = 80
const MOST_MS = 1_500_000

/**
 * Runs all checks and tests, from the cheapest to the dearest; goes on after a failure and counts.
 * @param {Installation} given
 */
export async function test(given) {
  mkdirSync(OUT, { recursive: true })
  // The library is read and proved once: all that start find what came of it.
  const kept = join(OUT, 'library.json')
  for (const kind of ['demo', 'own']) rmSync(`${kept}.${kind}`, { force: true })
  const demo = join(OUT, 'e2e-data')
  /** @type {NodeJS.ProcessEnv} */
  const env = { ...given.env, UVANTA_LIBRARY_KEPT: kept, UVANTA_E2E_DATA: demo }
  // Tests make directories of their own.
  delete env.UVANTA_DATA
  const installation = { ...given, env }
  await needPrograms(given, { ...DATABASE_PROGRAMS, ...CLUSTER_PROGRAMS, ...TEST_PROGRAMS })
  await needBuild(installation)

  /** @type {Outcome[]} */
  const outcomes = []
  /** @param {Promise<Outcome>[]} running */
  const counted = async (...running) => {
    for (const outcome of await Promise.all(running)) outcomes.push(shown(outcome))
  }
  const check = (/** @type {string} */ name) =>
    one(env, name, 'npm', ['run', '-s', `check:${name}`])
  const script = (/** @type {string} */ name, /** @type {string[]} */ ...words) =>
    one(env, name, 'bash', [`scripts/${name}-test.sh`, ...words])
  // One after the other these would leave a core idle half of the time.
  const demoIsLoaded = loadDemo(env, demo)
  // By itself the longest of them would do so too: it goes on beside the tests.
  const types = check('types')
  await counted(...['format', 'boundaries', 'exports', 'lint'].map(check))
  // Those of the launcher mostly wait, while the tests of the server work.
  const beside = [
    vitest(env, 'backup', ['--config', 'vitest.launcher.config.ts']),
    script('launcher'),
    script('cluster'),
    script('power', '3'),
  ]
  await counted(vitest(env, 'unit', []))
  await demoIsLoaded
  await counted(types, ...beside)
  // Once everything is built: it starts what it may not build.
  await counted(script('deploy'))
  await counted(endToEnd(env))

  const passed = outcomes.reduce((sum, outcome) => sum + outcome.passed, 0)
  const failed = outcomes.reduce((sum, outcome) => sum + outcome.failed, 0)
  say()
  say(`${passed} passed, ${failed} failed`)
  if (failed > 0) process.exitCode = 1
}

/** @param {Outcome} outcome */
function shown(outcome) {
  const { name, passed, failed, log } = outcome
  say(`  ${name}: ${passed} passed, ${failed} failed`)
  if (failed > 0) say(textOf(log).split('\n').slice(-LINES).join('\n'))
  return outcome
}

/**
 * @param {NodeJS.ProcessEnv} env
 * @param {string} name
 * @param {string} program
 * @param {string[]} words
 */
async function ran(env, name, program, words) {
  step(name)
  const log = join(OUT, `${name}.log`)
  const { failed } = await execa(program, words, {
    cwd: ROOT,
    env,
    extendEnv: false,
    stdin: 'ignore',
    stdout: { file: log },
    stderr: { file: log },
    reject: false,
    timeout: MOST_MS,
  })
  return { log, failed }
}

/**
 * A check that is counted once.
 * @param {NodeJS.ProcessEnv} env
 * @param {string} name
 * @param {string} program
 * @param {string[]} words
 * @returns {Promise<Outcome>}
 */
async function one(env, name, program, words) {
  const { log, failed } = await ran(env, name, program, words)
  return { name, passed: failed ? 0 : 1, failed: failed ? 1 : 0, log }
}

/**
 * @param {NodeJS.ProcessEnv} env
 * @param {string} name
 * @param {string[]} words
 */
const vitest = (env, name, words) =>
  reported(env, name, 'node_modules/.bin/vitest', (report) => [
    'run',
    ...words,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ])

/** @param {NodeJS.ProcessEnv} env */
const endToEnd = (env) =>
  reported(
    { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: join(OUT, 'end-to-end.json') },
    'end-to-end',
    'node_modules/.bin/playwright',
    () => ['test', '--config', 'e2e/playwright.config.ts', '--reporter=list,json'],
  )

/**
 * A test runner, counted by its JSON report.
 * @param {NodeJS.ProcessEnv} env
 * @param {string} name
 * @param {string} program
 * @param {(report: string) => string[]} wordsFor
 * @returns {Promise<Outcome>}
 */
async function reported(env, name, program, wordsFor) {
  const report = join(OUT, `${name}.json`)
  rmSync(report, { force: true })
  const { log, failed } = await ran(env, name, program, wordsFor(report))
  const counts = existsSync(report) ? countsIn(report) : { passed: 0, failed: 1 }
  return { name, ...counts, failed: Math.max(counts.failed, failed ? 1 : 0), log }
}

/** What a JSON report of Vitest or Playwright counts. @param {string} file */
function countsIn(file) {
  const report = JSON.parse(readFileSync(file, 'utf8'))
  if (report.stats) {
    const { expected, unexpected, flaky } = report.stats
    return { passed: expected + flaky, failed: unexpected + (report.errors?.length ?? 0) }
  }
  const brokenFiles = report.testResults.filter(
    (/** @type {{ status: string, assertionResults: unknown[] }} */ file) =>
      file.status === 'failed' && file.assertionResults.length === 0,
  ).length
  return { passed: report.numPassedTests, failed: report.numFailedTests + brokenFiles }
}

/**
 * Loads the demo of the end-to-end tests once, and shuts it down again.
 * @param {NodeJS.ProcessEnv} env
 * @param {string} data
 */
async function loadDemo(env, data) {
  rmSync(data, { recursive: true, force: true })
  const log = createWriteStream(join(OUT, 'demo.log'))
  const child = startProgram(join(ROOT, 'uvanta'), ['--data', data, 'start'], {
    env: {
      ...env,
      UVANTA_PORT: '4976',
      UVANTA_DB_WANTED_PORT: '4990',
      UVANTA_GAUGE_WANTED_PORT: '4994',
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', (chunk) => {
      said += chunk
      log.write(chunk)
    })
  while (!said.includes('Uvanta is at') && !hasEnded(child)) await pause(500)
  if (hasEnded(child)) throw new LauncherError(`the demo could not be loaded; see ${OUT}/demo.log`)
  await stopProgram(child)
}
