import { cpSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Op } from 'sequelize'
import type { App } from '../context'
import { replaceFile } from '../store/keptFile'
import { refreshDemoDay } from './day'
import { loadDemo } from './load'

/** What an installation of its own had of the demo’s rules, programmes and sheets before it had a library of its own. */
const FORMER = [
  'rulepacks',
  'specsheets',
  'programmes.yaml',
  'policies.yaml',
  'earlier/rulepacks',
  'earlier/programmes',
] as const

/**
 * Keeps what was in force: an installation from before utilities had a library of their own goes on with the rules
 * that its equipment and visits rest on.
 */
async function keepFormerRules({ config, db }: App): Promise<boolean> {
  if (config.isDemo || existsSync(config.ownLibrary)) return false
  mkdirSync(config.ownLibrary, { recursive: true })
  if ((await db.equipment.count()) === 0) return false
  for (const part of FORMER)
    cpSync(join(config.libraryDirectory, 'demo', part), join(config.ownLibrary, part), {
      recursive: true,
    })
  return true
}

/**
 * Before serving: the demo where nobody is there yet, and its visits of today.
 * @param sites file for the demo's hidden conditions, for the test gauge's stand-in; taken away where there is no demo
 * @param empty for a utility of its own: no demo is loaded
 */
export async function makeReady(
  app: App,
  sites: string,
  empty: boolean,
  say: (line: string) => void,
): Promise<void> {
  if (empty && (await keepFormerRules(app)))
    say('· The rules in force so far are now in the library of this installation')
  if (!empty && (await app.db.people.count()) === 0) {
    say('· Loading the Larkhaven demo (once, about a minute)')
    const loading = `${sites}.loading`
    writeFileSync(loading, '')
    await loadDemo(app, (line) => say(`  ${line}`))
    rmSync(loading)
  }
  const where = { virtualSite: { [Op.ne]: null } }
  if ((await app.db.equipment.count({ where })) === 0) return rmSync(sites, { force: true })
  const planned = await refreshDemoDay(app)
  if (planned > 0) say(`  ${planned} visits planned for today`)
  const hidden = await app.db.equipment.findAll({ where, attributes: ['id', 'virtualSite'] })
  replaceFile(sites, JSON.stringify(Object.fromEntries(hidden.map((e) => [e.id, e.virtualSite]))))
}
