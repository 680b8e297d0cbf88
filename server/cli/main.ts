import { readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ExplainedError } from '@uvanta/core/errors'
import { libraryKeptIn, libraryLayers, ownDataOf, readConfig } from '../config'

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
const say = (line: string) => process.stdout.write(`${line}\n`)
/** What is not for the command line, where others see it. */
const passphrase = () => readFileSync(0, 'utf8').trimEnd()

/** With everything that serving needs, which takes a second to read: for the commands that need it. */
const openApp = async () => {
  const { openOrExplain } = await import('../app')
  return openOrExplain(readConfig(process.env, root))
}

const keyPlace = () => ({
  dataDirectory: process.env.UVANTA_DATA ?? '',
  ...(process.env.UVANTA_KEYS_PASSPHRASE
    ? { keysPassphrase: process.env.UVANTA_KEYS_PASSPHRASE }
    : {}),
})

/** @throws ExplainedError for what is no JSON object */
function jsonFrom(text: string): object {
  try {
    const value: unknown = JSON.parse(text)
    if (typeof value === 'object' && value) return value
  } catch {
    // Said below.
  }
  throw new ExplainedError(
    'invalid-input',
    'What came in is no JSON object.',
    'Write it as {"name": "Example Water", …}.',
  )
}

/** What the launcher asks of the server besides serving. */
const commands: Record<string, (name?: string, other?: string) => Promise<number>> = {
  /** Reads and proves the library, and keeps what came of it for whoever opens it next. */
  async library() {
    const [{ readLibrary }, { loadLibrary }] = await Promise.all([
      import('../library/readLibrary'),
      import('../library/load'),
    ])
    const own = ownDataOf(process.env)
    const layers = libraryLayers(root, own)
    const keptIn = libraryKeptIn(process.env, process.env.UVANTA_DATA ?? '', own === '')
    await readLibrary(layers, keptIn, async (from) => loadLibrary(from))
    return 0
  },
  /** What the utility is; with JSON coming in, what it is to be from now on. */
  async settings(how = '') {
    const [{ api, bodyOf }, { check }, { readSettings, changeSettings }, { UVANTA }] =
      await Promise.all([
        import('@uvanta/contract'),
        import('@uvanta/core/schema'),
        import('../service/settings/utility'),
        import('../service/visit/repin'),
      ])
    const app = await openApp()
    try {
      const { version, missing: _missing, publicUrl, isDemo, ...fields } = await readSettings(app)
      const state =
        how === '--change'
          ? await changeSettings(
              app,
              { ...UVANTA, name: 'The command line' },
              version,
              check(bodyOf(api.settings.change), { ...fields, ...jsonFrom(passphrase()) }),
            )
          : { ...fields, version, missing: _missing, publicUrl, isDemo }
      say(JSON.stringify(state))
      return 0
    } finally {
      await app.db.sequelize.close()
    }
  },
  /** The first administrator, or one who forgot the password. */
  async admin(username = '') {
    const password = passphrase()
    const [{ newPersonSchema }, { check }, { ExplainedError }, { makeAdministrator }] =
      await Promise.all([
        import('@uvanta/contract'),
        import('@uvanta/core/schema'),
        import('@uvanta/core/errors'),
        import('../service/people/people'),
      ])
    const app = await openApp()
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
    const { encryptFile } = await import('./sealedFile')
    await encryptFile(from, to, passphrase())
    return 0
  },
  async decrypt(from = '', to = '') {
    const { decryptFile } = await import('./sealedFile')
    return (await decryptFile(from, to, passphrase())) ? 0 : 1
  },
  /** Signs what lies in a directory as a backup; says with which key. */
  async 'sign-backup'(directory = '') {
    const { signBackup } = await import('./backupSignature')
    say(await signBackup(directory, keyPlace()))
    return 0
  },
  /** Whether a backup in a directory is whole, and of somebody who is trusted here or named. */
  async 'check-backup'(directory = '', signedBy = '') {
    const { backupFault } = await import('./backupSignature')
    const trusted =
      process.env.UVANTA_TRUSTED ?? join(keyPlace().dataDirectory, 'keys', 'trusted.json')
    const fault = await backupFault(directory, trusted, signedBy)
    if (fault) process.stderr.write(`${fault}\n`)
    return fault ? 1 : 0
  },
  async migrate() {
    const [{ openDatabase }, { bringUpToDate }, { giveRights }] = await Promise.all([
      import('../store/database'),
      import('../store/migrate'),
      import('../store/rights'),
    ])
    const { sequelize } = openDatabase(readConfig(process.env, root).database)
    const done = await bringUpToDate(sequelize)
    await giveRights(sequelize)
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
    const app = await openApp()
    const { makeReady } = await import('../demo/ready')
    await makeReady(app, sites, empty === '--empty', say)
    if (app.utility.current.missing.length > 0)
      say(
        '· No certificates are issued yet: sign in as administrator and fill in Office, Settings (or ./uvanta admin setup)',
      )
    await app.db.sequelize.close()
    return 0
  },
  /** Opened before and after, so that the old key and the new one both stand among those that are published. */
  async 'renew-key'() {
    const { renewSigningKey } = await import('../service/certificate/keys')
    await (await openApp()).db.sequelize.close()
    const kid = await renewSigningKey(readConfig(process.env, root))
    await (await openApp()).db.sequelize.close()
    say(`From the next start on, certificates are signed with the key ${kid}.`)
    return 0
  },
  /** Deletes what is older than records are kept, or says what that would be. */
  async forget(until = '', how = '') {
    const { countForgettable, forget } = await import('../service/integrity/forget')
    const app = await openApp()
    const before = new Date(`${until}T00:00:00Z`)
    if (how === '--look') {
      const { visits, auditLines } = await countForgettable(app, before)
      say(`${visits} visits and ${auditLines} lines of the audit are from before ${until}.`)
    } else {
      const { visits, auditLines, people } = await forget(app, before)
      say(
        `Deleted: ${visits} visits with photographs and certificates, ${auditLines} lines of the audit, ${people} names of people who left.`,
      )
    }
    await app.db.sequelize.close()
    return 0
  },
  /** Everything that a utility takes along; says as JSON how much that was. */
  async export(directory = '') {
    const { exportAll } = await import('../service/export/exportAll')
    const app = await openApp()
    try {
      say(JSON.stringify(await exportAll(app, directory)))
      return 0
    } finally {
      await app.db.sequelize.close()
    }
  },
  /** What was checked and every fault, as JSON. */
  async 'verify-chain'() {
    const { verifyChains } = await import('../service/integrity/verifyChains')
    const app = await openApp()
    const { visits, events, certificates, faults } = await verifyChains(app)
    say(JSON.stringify({ visits, events, certificates, faults }))
    await app.db.sequelize.close()
    return 0
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
const status = await command(...process.argv.slice(3)).catch((error: unknown) => {
  // An expected error is a message; any other keeps its stack trace.
  if (!(error instanceof ExplainedError)) throw error
  process.stderr.write(`${error.why} ${error.remedy}\n`)
  return 1
})
process.exit(status)
