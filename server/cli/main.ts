import { readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { newPersonSchema } from '@uvanta/contract'
import { ExplainedError } from '@uvanta/core/errors'
import { check } from '@uvanta/core/schema'
import { Op } from 'sequelize'
import { openOrExplain } from '../app'
import { readConfig } from '../config'
import { refreshDemoDay } from '../demo/day'
import { loadDemo } from '../demo/load'
import { renewSigningKey } from '../service/certificate/keys'
import { makeAdministrator } from '../service/people/people'
import { verifyChains } from '../service/integrity/verifyChains'
import { decryptFile, encryptFile } from './sealedFile'
import { openDatabase } from '../store/database'
import { replaceFile } from '../store/keptFile'
import { migrator } from '../store/migrate'

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
const say = (line: string) => process.stdout.write(`${line}\n`)
/** What is not for the command line, where others see it. */
const passphrase = () => readFileSync(0, 'utf8').trimEnd()

/** What the launcher asks of the server besides serving. */
const commands: Record<string, (name?: string, other?: string) => Promise<number>> = {
  /** The first administrator, or one who forgot the password. */
  async admin(username = '') {
    const password = passphrase()
    const app = await openOrExplain(readConfig(process.env, root))
    try {
      const input = check(newPersonSchema, {
        id: app.newId(),
        username,
        name: username,
        roles: ['administrator'],
        password,
      })
      const fresh = await makeAdministrator(app, input.username, input.password)
      say(
        fresh
          ? `${username} is administrator.`
          : `${username} has the new password, and is administrator.`,
      )
      return 0
    } catch (error) {
      if (!(error instanceof ExplainedError)) throw error
      process.stderr.write(`${error.message}\n`)
      return 1
    } finally {
      await app.db.sequelize.close()
    }
  },
  /** Encrypts one file into another; the passphrase is what comes in. */
  async encrypt(from = '', to = '') {
    await encryptFile(from, to, passphrase())
    return 0
  },
  async decrypt(from = '', to = '') {
    return (await decryptFile(from, to, passphrase())) ? 0 : 1
  },
  async migrate() {
    const { sequelize } = openDatabase(readConfig(process.env, root).database)
    const done = await migrator(sequelize).up()
    if (done.length > 0) say(`  ${done.length} steps of the schema applied`)
    await sequelize.close()
    return 0
  },
  /**
   * Everything before serving: the schema up to date, the demo where nobody is there yet, its visits of today.
   * @param sites file for the demo's hidden conditions, for the test gauge's stand-in; left away where there is no demo
   * @param empty `--empty` for a utility of its own
   */
  async ready(sites = '', empty = '') {
    await commands.migrate?.()
    const app = await openOrExplain(readConfig(process.env, root))
    if (empty !== '--empty' && (await app.db.people.count()) === 0) {
      say('· Loading the Larkhaven demo (once, about a minute)')
      const loading = `${sites}.loading`
      writeFileSync(loading, '')
      await loadDemo(app, (line) => say(`  ${line}`))
      rmSync(loading)
    }
    const where = { virtualSite: { [Op.ne]: null } }
    if ((await app.db.equipment.count({ where })) > 0) {
      const planned = await refreshDemoDay(app)
      if (planned > 0) say(`  ${planned} visits planned for today`)
      const hidden = await app.db.equipment.findAll({ where, attributes: ['id', 'virtualSite'] })
      replaceFile(
        sites,
        JSON.stringify(Object.fromEntries(hidden.map((e) => [e.id, e.virtualSite]))),
      )
    } else rmSync(sites, { force: true })
    await app.db.sequelize.close()
    return 0
  },
  /** Opened before and after, so that the old key and the new one both stand among those that are published. */
  async 'renew-key'() {
    const config = readConfig(process.env, root)
    await (await openOrExplain(config)).db.sequelize.close()
    const kid = await renewSigningKey(config)
    await (await openOrExplain(config)).db.sequelize.close()
    say(`From the next start on, certificates are signed with the key ${kid}.`)
    return 0
  },
  async 'verify-chain'() {
    const app = await openOrExplain(readConfig(process.env, root))
    const { visits, events, certificates, faults } = await verifyChains(app)
    for (const f of faults) say(`${f.of} ${f.id}: ${f.what}`)
    say(
      `${events} events in ${visits} visits and ${certificates} certificates checked, ${faults.length} faults`,
    )
    await app.db.sequelize.close()
    return faults.length > 0 ? 1 : 0
  },
}

const name = process.argv[2] ?? ''
const command = commands[name]
if (!command) {
  process.stderr.write(
    `There is no command “${name}”. Known: ${Object.keys(commands).join(', ')}.\n`,
  )
  process.exit(2)
}
process.exit(await command(...process.argv.slice(3)))
