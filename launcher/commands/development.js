import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { execa } from 'execa'
import { needBuild } from '../build.js'
import { atEnd } from '../cleanup.js'
import { ROOT } from '../packages.js'
import { needPrograms, TEST_PROGRAMS } from '../programs.js'
import { startOwn } from '../running.js'
import { asOwner, server } from '../server.js'
import { installationAt } from '../settings.js'

/** @typedef {import('../settings.js').Installation} Installation */

/**
 * Prints figures as JSON lines, on data that are thrown away.
 * @param {Installation} given
 * @param {{ scale?: boolean }} options
 */
export async function bench(given, { scale }) {
  await needPrograms(given, { 'chromium-headless-shell': TEST_PROGRAMS['chromium-headless-shell'] })
  await needBuild(given)
  const data = mkdtempSync(join(tmpdir(), 'uvbench-'))
  atEnd(() => rmSync(data, { recursive: true, force: true }))
  const env = {
    ...given.env,
    UVANTA_PORT: '4988',
    UVANTA_DB_WANTED_PORT: '4995',
    // The demo’s people have no second factor.
    UVANTA_SECOND_FACTOR: 'offered',
  }
  const { installation } = await startOwn(installationAt(data, env), 'command')
  const owner = asOwner({ ...installation, env: { ...installation.env, UVANTA_KIND: 'demo' } })
  await server(owner, ['migrate'])
  const file = scale ? 'server/bench/scale/main.ts' : 'server/bench/main.ts'
  const words = [...(scale ? [] : ['--expose-gc']), '--import', 'tsx', file]
  await inCheckout(owner, process.execPath, words)
}

/**
 * Changes the rules in small ways, and says which changes no test notices.
 * @param {Installation} installation
 * @param {string[]} words
 */
export const mutate = (installation, words) =>
  inCheckout(installation, 'bash', ['scripts/mutate.sh', ...words])

/** @param {Installation} installation @param {string} program @param {string[]} words */
async function inCheckout({ env }, program, words) {
  const { exitCode } = await execa(program, words, {
    cwd: ROOT,
    env,
    stdio: 'inherit',
    reject: false,
  })
  process.exitCode = exitCode ?? 1
}
