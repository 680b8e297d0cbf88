import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir, userInfo } from 'node:os'
import { join } from 'node:path'

export interface TestServer {
  readonly port: number
  readonly password: string
  /** Sends the signal and waits for the end. */
  readonly stop: (signal?: NodeJS.Signals) => Promise<void>
  /** Starts again on the same data. */
  readonly start: () => Promise<void>
  readonly remove: () => void
}

const root = process.getuid?.() === 0
const env = { ...process.env, PATH: `${process.env.PATH}:/usr/sbin` }

/** Under disk load the kernel’s asynchronous I/O can stall the server’s start-up for minutes. */
const NO_NATIVE_AIO = '--innodb-use-native-aio=OFF'

export function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0))
    })
  })
}

/** A MariaDB of its own, on a free port of loopback, thrown away afterwards. */
export async function startMariaDb(): Promise<TestServer> {
  const home = mkdtempSync(join(tmpdir(), 'uvdb-'))
  const port = await freePort()
  const password = 'throwaway'
  // Of its own: a database that starts clears temporary tables away, whoever’s they are.
  mkdirSync(join(home, 'tmp'))
  execFileSync(
    'mariadb-install-db',
    [
      '--no-defaults',
      ...(root ? ['--user=root'] : [`--auth-root-socket-user=${userInfo().username}`]),
      '--basedir=/usr',
      `--datadir=${home}/data`,
      `--tmpdir=${home}/tmp`,
      '--auth-root-authentication-method=socket',
      '--skip-test-db',
      '--skip-name-resolve',
      NO_NATIVE_AIO,
    ],
    { env, stdio: 'ignore' },
  )
  writeFileSync(
    join(home, 'init.sql'),
    `CREATE USER IF NOT EXISTS 'uvanta'@'127.0.0.1' IDENTIFIED BY '${password}';\nGRANT ALL ON *.* TO 'uvanta'@'127.0.0.1';\n`,
  )
  let child: ChildProcess | undefined
  const launch = () => {
    child = spawn(
      'mariadbd',
      [
        '--no-defaults',
        ...(root ? ['--user=root'] : []),
        '--basedir=/usr',
        `--datadir=${home}/data`,
        `--tmpdir=${home}/tmp`,
        `--port=${port}`,
        '--bind-address=127.0.0.1',
        `--socket=${home}/s`,
        `--pid-file=${home}/pid`,
        `--init-file=${home}/init.sql`,
        '--skip-name-resolve',
        NO_NATIVE_AIO,
        // Thrown away: nobody waits for its disk.
        '--innodb-flush-method=nosync',
        '--character-set-server=utf8mb4',
        '--collation-server=utf8mb4_uca1400_ai_ci',
        '--default-time-zone=+00:00',
        '--innodb-ft-min-token-size=1',
        '--innodb-ft-enable-stopword=0',
      ],
      { env, stdio: 'ignore' },
    )
  }
  // A start that is stuck all the same is ended; a second one gets through.
  const start = async () => {
    for (let attempt = 0; attempt < 4; attempt++) {
      launch()
      if (await answers(home)) return
      await stop('SIGKILL')
    }
    throw new Error('the throwaway MariaDB did not answer')
  }
  const stop = (signal: NodeJS.Signals = 'SIGTERM') =>
    new Promise<void>((done) => {
      if (!child || child.exitCode !== null || child.signalCode) return done()
      child.once('exit', () => done())
      child.kill(signal)
    })
  await start()
  return {
    port,
    password,
    stop,
    start,
    remove: () => rmSync(home, { recursive: true, force: true }),
  }
}

async function answers(home: string): Promise<boolean> {
  let timeouts = 0
  for (let attempt = 0; attempt < 150 && timeouts < 5; attempt++) {
    try {
      const ping = ['--no-defaults', '--connect-timeout=2', `--socket=${home}/s`, 'ping']
      execFileSync('mariadb-admin', ping, { env, stdio: 'ignore', timeout: 3_000 })
      return true
    } catch (error) {
      // No answer in time although something listens, again and again: it is stuck.
      if ((error as { code?: string }).code === 'ETIMEDOUT') timeouts++
      await new Promise((r) => setTimeout(r, 100))
    }
  }
  return false
}
