import { QueryTypes, type Sequelize } from 'sequelize'
import { v7 as uuidv7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startMariaDb, type TestServer } from '../testing/mariadb'
import { openDatabase } from './database'
import { bringUpToDate } from './migrate'
import { steps } from './schema'

/** So many power cuts in every run; more by hand. */
const CUTS = Number(process.env.UVANTA_CUTS ?? 5)

let server: TestServer
beforeAll(async () => (server = await startMariaDb()))
afterAll(async () => {
  await server.stop()
  server.remove()
})

const open = (database: string) =>
  openDatabase({
    host: '127.0.0.1',
    port: server.port,
    user: 'uvanta',
    password: server.password,
    database,
  }).sequelize
async function newDatabase(): Promise<string> {
  const name = `uvanta_${uuidv7().replaceAll('-', '')}`
  const any = open('mysql')
  await any.query(`CREATE DATABASE ${name}`)
  await any.close()
  return name
}
/** Everything that the steps make: columns, keys and triggers. */
async function schemaOf(db: Sequelize): Promise<unknown> {
  const all = (sql: string) => db.query(sql, { type: QueryTypes.SELECT })
  return {
    columns: await all(
      `SELECT table_name, column_name, column_type, is_nullable, column_default, column_key
       FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY 1, 2`,
    ),
    keys: await all(
      `SELECT table_name, index_name, seq_in_index, column_name, non_unique
       FROM information_schema.statistics WHERE table_schema = DATABASE() ORDER BY 1, 2, 3`,
    ),
    triggers: await all(
      `SELECT trigger_name, action_statement FROM information_schema.triggers
       WHERE trigger_schema = DATABASE() ORDER BY 1`,
    ),
    noted: await all('SELECT name FROM schema_step ORDER BY 1'),
  }
}
let whole: unknown
beforeAll(async () => {
  const db = open(await newDatabase())
  expect(await bringUpToDate(db)).toHaveLength(steps.length)
  whole = await schemaOf(db)
  await db.close()
})

describe('a power cut in a migration', () => {
  const finish = async (name: string) => {
    const db = open(name)
    await bringUpToDate(db)
    expect(await schemaOf(db)).toEqual(whole)
    await db.close()
  }
  it('between any step and the note that it was done: the next start goes on and finishes', async () => {
    const db = open(await newDatabase())
    const { query } = db
    for (const step of steps) {
      // The statement has committed by itself; nobody has noted it.
      db.query = (async (sql: string, ...rest: unknown[]) => {
        const done = await (query as (...given: unknown[]) => Promise<unknown>).call(
          db,
          sql,
          ...rest,
        )
        if (sql === step.up) throw new Error('power cut')
        return done
      }) as typeof query
      await expect(bringUpToDate(db)).rejects.toThrow()
      db.query = query
    }
    expect(await bringUpToDate(db)).toHaveLength(1)
    expect(await schemaOf(db)).toEqual(whole)
    await db.close()
  })
  it(
    `of the database, ${CUTS} times at random moments: the start after them finishes`,
    { timeout: 60_000 + CUTS * 30_000 },
    async () => {
      let name = await newDatabase()
      let cut = 0
      for (let n = 0; cut < CUTS; n++) {
        // A finished migration has nothing left to interrupt: every sixth time a new database is taken.
        if (n > 0 && n % 6 === 0) {
          await finish(name)
          name = await newDatabase()
        }
        const db = open(name)
        const going = bringUpToDate(db).then(
          () => 'done',
          () => 'cut',
        )
        await new Promise((passed) => setTimeout(passed, Math.random() * 500))
        await server.stop('SIGKILL')
        if ((await going) === 'cut') cut++
        await db.close().catch(() => undefined)
        await server.start()
      }
      await finish(name)
    },
  )
})

describe('an older program', () => {
  it('on data that a newer one has written is refused, and changes nothing', async () => {
    const db = open(await newDatabase())
    await bringUpToDate(db)
    await db.query("INSERT INTO schema_step (name) VALUES ('999-of-tomorrow')")
    const before = await schemaOf(db)
    await expect(bringUpToDate(db)).rejects.toMatchObject({ code: 'schema-newer' })
    expect(await schemaOf(db)).toEqual(before)
    await db.close()
  })
})
