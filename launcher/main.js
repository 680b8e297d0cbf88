import { Command } from 'commander'
import { endAll } from './cleanup.js'
import { LauncherError, printJson, report, reportError, say, step } from './output.js'
import { SaidAlready } from './server.js'
import { findInstallation } from './settings.js'
import { commandIn } from './words.js'

/** @typedef {import('./settings.js').Installation} Installation */

/** These run until they are stopped: to stop them is no failure. */
const SERVING = ['start', 'dev', 'cluster']

/**
 * Runs a command of the launcher.
 * @param {string[]} words
 * @returns {Promise<number>} status with which the process ends
 */
export async function run(words) {
  const program = programOf()
  // Whoever reads along may be gone, as with a closed terminal: everything still ends in order.
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined)
  const isServing = SERVING.includes(commandIn(words) ?? '')
  /** Status once somebody has stopped it: what fails because of that is no failure of its own. */
  const stopped = { status: /** @type {number | null} */ (null) }
  for (const [signal, status] of /** @type {const} */ ([
    ['SIGINT', 130],
    ['SIGTERM', 143],
  ]))
    // For good: were it taken off as it is called, a program that runs at that moment would have this one killed.
    process.on(signal, () => {
      say()
      step('Stopping')
      const end = isServing ? 0 : status
      stopped.status = end
      void endAll().then(() => process.exit(end))
    })
  if (words.length === 0) {
    program.outputHelp({ error: true })
    return 2
  }
  try {
    await program.parseAsync(words, { from: 'user' })
    await endAll()
    return Number(process.exitCode ?? 0)
  } catch (error) {
    await endAll()
    if (stopped.status !== null) return stopped.status
    if (error instanceof SaidAlready) return error.status
    if (!(error instanceof LauncherError)) throw error
    reportError(error)
    return 1
  }
}

/** The commands, their options and what they say of themselves. */
function programOf() {
  const program = new Command('./uvanta')
    .description('Runs Uvanta, and everything that is done with its data.')
    .usage('[--data DIRECTORY] COMMAND')
    .option(
      '--data <directory>',
      'directory of the data (else UVANTA_DATA, /etc/uvanta/uvanta.env, .uvanta)',
    )
    .option('--json', 'print the result as JSON; messages go to standard error')
    .helpOption('-h, --help', 'say what a command does')
    .helpCommand(false)
    .showHelpAfterError('See ./uvanta --help')
  /**
   * @param {string} name with its arguments
   * @param {string} summary one line
   * @param {string} description
   */
  const command = (name, summary, description) =>
    program
      .command(name)
      .summary(summary)
      .description(description.replaceAll(/\s+/g, ' ').trim())
      .showHelpAfterError(`See ./uvanta ${name.split(' ')[0]} --help`)
  const installation = () => {
    const { data, json } = program.opts()
    if (json) printJson()
    return findInstallation(data)
  }

  command(
    'start',
    'set up what is missing, then run Uvanta until Ctrl-C',
    `Installs MariaDB’s server and the npm packages where they are missing, builds, starts a private database on
    loopback, brings its schema up to date, loads the Larkhaven demo into an empty database, and serves at
    http://127.0.0.1:4870 or the next free port. What ends by itself is started again; Ctrl-C stops everything in
    order. UVANTA_PORT, UVANTA_DATA and UVANTA_PUBLIC_URL change the defaults; UVANTA_GAUGE_SPEED lets the simulated
    test gauge run faster than the clock.`,
  )
    .option('--empty', 'a utility of its own: no demo, now or later, and the wanted port or none')
    .action(async (options) => {
      const { start } = await import('./commands/start.js')
      await start(installation(), options)
    })
  command(
    'install',
    'set up what is missing, and run nothing',
    `Installs MariaDB’s server (as root) and the npm packages where they are missing, and builds. After it, start
    writes nothing but the directory of the data: run it after every new version, as the owner of the checkout,
    before the service is restarted.`,
  ).action(async () => {
    const { install } = await import('./commands/others.js')
    await install(installation())
  })
  command(
    'admin <name>',
    'make somebody administrator, or give the administrator a new password',
    `Asks for a password, at the terminal or on standard input, and makes NAME an administrator. Somebody of that
    name gets the password and the role; sessions of that person end. Works beside a running Uvanta. As
    ./uvanta admin setup it asks what the utility is instead, or takes that as JSON on standard input: what the
    administrator else fills in under Office, Settings.`,
  ).action(async (name) => {
    const { admin, setup } = await import('./commands/others.js')
    if (name === 'setup') report(await setup(installation()))
    else await admin(installation(), name)
  })
  command(
    'cluster',
    'run on three database nodes and two processes, as a utility would',
    `Installs galera-4, haproxy and rsync where they are missing and runs three nodes of MariaDB Galera Cluster, a
    proxy before them, two processes of the application and a proxy before these, all on loopback (ports from 4900
    on). Any one of them may die: the others go on. See docs/OPERATIONS.md.`,
  )
    .option('--node <number>', 'start a node of the running cluster again that has died')
    .option(
      '--roll',
      'take a new version up: one process of the application after the other, while people work',
    )
    .action(async ({ node, roll }) => {
      const { cluster, nodeAgain, rollOver } = await import('./cluster/run.js')
      if (node) await nodeAgain(installation(), node)
      else if (roll) await rollOver(installation())
      else await cluster(installation())
    })
  command(
    'test',
    'install what tests need and run all of them',
    `Runs format, lint, boundaries, types, unit tests, interface tests on a throwaway database and end-to-end tests
    in headless Chromium. Ends with “N passed, N failed”.`,
  ).action(async () => {
    const { test } = await import('./commands/test.js')
    await test(installation())
  })
  command(
    'dev',
    'run with hot reload of web and server',
    'As start, with the web application rebuilt and the server restarted whenever a file changes.',
  ).action(async () => {
    const { dev } = await import('./commands/others.js')
    await dev(installation())
  })
  command(
    'compute [name...]',
    'run a computation on standard input; without a name, list them',
    'Works offline, without database. Without a name: the list of computations.',
  )
    .allowUnknownOption()
    .action(async (words) => {
      const { compute } = await import('./commands/others.js')
      await compute(installation(), words)
    })
  command(
    'backup [file]',
    'write one file that holds everything, or what is new',
    `Writes database and signing keys into one archive (usually backups/DATE.tar in the directory of the data), reads
    it back into a database of its own and compares everything. Works beside a running Uvanta; only its owner can
    read the file.`,
  )
    .option(
      '--encrypt',
      'under a passphrase (UVANTA_BACKUP_PASSPHRASE, or asked for), in the format of age',
    )
    .option(
      '--changes',
      'copy what was changed since the last time into a directory, read back: seconds, however large the record is; two weeks are kept back for it',
    )
    .action(async (file, options) => {
      const { backup } = await import('./commands/backup.js')
      report(await backup(installation(), file, options))
    })
  command(
    'drill [file]',
    'try the newest backup, or this one, beside what is there',
    `Restores the newest backup, or this one, into a directory of its own that is thrown away, and verifies every
    chain and certificate in it. Works beside a running Uvanta; put it into the calendar.`,
  )
    .option('--until <time>', 'follow changes after the backup up to this moment, in UTC')
    .option('--changes <directory>', 'directory of backup --changes')
    .option('--signed-by <key>', 'trust this key as well')
    .action(async (file, options) => {
      const { drill } = await import('./commands/restore.js')
      report(await drill(installation(), file, options))
    })
  command(
    'restore <file>',
    'put a backup back; --until TIME goes on from it to that moment',
    `Replaces the database and the keys of the record by those of a backup, which is read in and compared beside it
    before anything is touched. What was there is backed up first. A backup is signed, and one that is signed with a
    key that is not known here is refused until that key is named, as ./uvanta backup said it.`,
  )
    .option(
      '--until <time>',
      'follow changes after the backup up to this moment (2026-11-27 14:05, in UTC)',
    )
    .option('--changes <directory>', 'directory of backup --changes')
    .option(
      '--signed-by <key>',
      'trust this key as well; none for a backup from before there were signatures',
    )
    .option('--dry-run', 'try all of it, and replace nothing')
    .action(async (file, options) => {
      const { restore } = await import('./commands/restore.js')
      report(await restore(installation(), file, options))
    })
  command(
    'bench',
    'print figures as JSON lines',
    'Prints JSON lines; each figure is a ratio of two things measured side by side in this run.',
  )
    .option(
      '--scale',
      'every list at 200,000 pieces of equipment, beside its own SQL alone (some minutes, 3 GB of disk)',
    )
    .action(async (options) => {
      const { bench } = await import('./commands/development.js')
      await bench(installation(), options)
    })
  command(
    'doctor',
    'say what is missing or wrong',
    `Looks at Node, npm, MariaDB, Chromium, ports, the disk of the data, the clock, the age of the newest backup, of
    the last drill and of the signing key, and the certificate of the proxy.`,
  ).action(async () => {
    const { doctor } = await import('./commands/doctor.js')
    report(await doctor(installation()))
  })
  command(
    'verify-chain',
    'look for anything that was changed behind our back',
    `Recomputes every hash of every visit’s log, verifies every certificate, and holds states, photographs, audit and
    keys against their seals; exits 1 when something was changed. Works beside a running Uvanta.`,
  ).action(async () => {
    const { verifyChain } = await import('./commands/others.js')
    report(await verifyChain(installation()))
  })
  command(
    'export <directory>',
    'write all records in open formats',
    `Writes people, equipment, visits with their logs, certificates with their signatures, photographs and the
    versions of rules that they rest on into an empty directory, as JSON, PDF and JWS, and says there how chains and
    signatures are checked without this program. Passwords and keys that open something are not in it. Works beside a
    running Uvanta.`,
  ).action(async (directory) => {
    const { exportRecords } = await import('./commands/others.js')
    report(await exportRecords(installation(), directory))
  })
  command(
    'renew-key',
    'sign with a new key from the next start on',
    `Makes a new key for certificates and destroys the old one, whose public half stays published: what it signed
    verifies for good. Start every process anew after it. On several machines, copy the directory keys first.`,
  ).action(async () => {
    const { renewKey } = await import('./commands/others.js')
    await renewKey(installation())
  })
  command(
    'forget <years>',
    'delete records that are older than they are kept',
    `Deletes visits with photographs and certificates whose last entry is older than that, lines of the audit, and
    the names of people who left and whom nothing names any more. The last signed visit of each piece of equipment
    stays. Chains, seals and the heads of days hold as before. Asks first. How long records have to be kept, the
    local code and your contracts say; less than three years are refused. Works beside a running Uvanta.`,
  )
    .option('--yes', 'do not ask; for a timer')
    .action(async (years, options) => {
      const { forget } = await import('./commands/others.js')
      await forget(installation(), years, options)
    })
  command(
    'mutate [words...]',
    'change the rules in small ways, and see that tests notice',
    `Says which changes no test notices: verdict, visit guards, fold and prover, the files that are named, or with
    --sample the lines that the last commits changed. Wants a score of 85 %.`,
  )
    .allowUnknownOption()
    .action(async (words) => {
      const { mutate } = await import('./commands/development.js')
      await mutate(installation(), words)
    })
  return program
}
