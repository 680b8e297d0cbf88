import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { openApp } from './app'
import { readConfig } from './config'
import { verifyChains } from './service/integrity/verifyChains'
import { openDatabase } from './store/database'
import { migrator } from './store/migrate'
import { PASSWORD, populate } from './testing/app'
import { freePort, startMariaDb, type TestServer } from './testing/mariadb'
import { draft } from './testing/visit'

/** The real server process on a real database, both killed without warning while events stream in. */
const root = join(import.meta.dirname, '..')
let maria: TestServer
let app: App
let env: NodeJS.ProcessEnv
let port: number
let server: ChildProcess
let cookie: string

beforeAll(async () => {
  maria = await startMariaDb()
  port = await freePort()
  env = {
    ...process.env,
    UVANTA_PORT: String(port),
    UVANTA_DATA: mkdtempSync(join(tmpdir(), 'uvcrash-')),
    UVANTA_SESSION_SECRET: 'for tests only',
    UVANTA_DB_PORT: String(maria.port),
    UVANTA_DB_PASSWORD: maria.password,
    UVANTA_LOG: 'silent',
  }
  const config = readConfig(env, root)
  const admin = openDatabase({ ...config.database, database: 'mysql' })
  await admin.sequelize.query('CREATE DATABASE uvanta')
  await admin.sequelize.close()
  const db = openDatabase(config.database)
  await migrator(db.sequelize).up()
  await db.sequelize.close()
  app = await openApp(config)
})
afterAll(async () => {
  server.kill('SIGKILL')
  await app.db.sequelize.close()
  await maria.stop()
  maria.remove()
})

async function startServer(): Promise<void> {
  server = spawn('node', ['--import', 'tsx', join(root, 'server', 'main.ts')], {
    env,
    stdio: 'ignore',
  })
  for (let n = 0; n < 200; n++) {
    const up = await fetch(`http://127.0.0.1:${port}/.well-known/jwks.json`).then(
      (r) => r.ok,
      () => false,
    )
    if (up) return
    await pause(100)
  }
  throw new Error('the server did not start')
}
const killServer = () =>
  new Promise<void>((done) => (server.once('exit', () => done()), server.kill('SIGKILL')))
const pause = (ms: number) => new Promise((r) => setTimeout(r, ms))
const post = (path: string, body: unknown) =>
  fetch(`http://127.0.0.1:${port}${path}`, {
    method: 'POST',
    // A server whose database is gone may not answer at all.
    signal: AbortSignal.timeout(5_000),
    headers: { 'Content-Type': 'application/json', Cookie: cookie },
    body: JSON.stringify(body),
  })

describe('killed in the middle of a stream of appends', () => {
  it('keeps every acknowledged event once, with the chain intact', async () => {
    const world = await populate(app)
    await startServer()
    cookie = ''
    const signIn = await post('/api/v1/session', { username: 'tester', password: PASSWORD })
    cookie = signIn.headers.get('set-cookie')!.split(';')[0]!
    const id = uuidv7()
    const planned = await post('/api/v1/visits', {
      id,
      equipmentId: world.equipment.id,
      technicianId: world.tester.id,
      plannedOn: app.today(),
      purpose: 'periodic-test',
      rulePack: 'larkhaven-relief-first',
    })
    expect(planned.status).toBe(200)

    const TOTAL = 120
    const killServerAt = [30, 75]
    const killDatabaseAt = [50, 95]
    const acknowledged: string[] = []
    let killing = Promise.resolve()
    for (let n = 0; n < TOTAL; n++) {
      const event = draft('note', { station: 'prepare', text: `note ${n}` })
      // The blow falls while the request is under way.
      if (killServerAt.includes(n))
        killing = pause(n % 4)
          .then(killServer)
          .then(startServer)
      if (killDatabaseAt.includes(n))
        killing = pause(n % 4)
          .then(() => maria.stop('SIGKILL'))
          .then(maria.start)
      for (let attempt = 0; ; attempt++) {
        const response = await post(`/api/v1/visits/${id}/events`, {
          expected: acknowledged.length + 1,
          events: [event],
        }).catch(() => null)
        if (response?.status === 200) break
        if (response && response.status < 500)
          throw new Error(`${response.status} ${await response.text()}`)
        if (attempt > 100) throw new Error('the server did not come back')
        await killing
        await pause(100)
      }
      acknowledged.push(event.id)
    }
    await killing
    const stored = await app.db.visitEvents.findAll({
      where: { visitId: id },
      order: [['seq', 'ASC']],
    })
    expect(stored.slice(1).map((e) => e.id)).toEqual(acknowledged)
    expect((await verifyChains(app)).faults).toEqual([])
  }, 120_000)
})
