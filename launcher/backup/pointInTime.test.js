import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { sql } from '../database.js'
import { asOwner, server } from '../server.js'
import {
  newRecord,
  rowOf,
  rowsIn,
  testDirectory,
  uvanta,
  withDatabase,
} from '../testing/installation.js'
import { writeBackup } from './file.js'
import { dayAndTime } from './names.js'

/** How many moments of the day are put back, besides the last one; each takes half a minute. */
const CUTS = Number(process.env.UVANTA_CUTS ?? 2)
const { home, remove } = testDirectory()
const data = join(home, 'data')
const backup = join(home, 'morning.tar')

/** Numbers at random, the same at every run. */
function randomFrom(seed = 20261202) {
  let state = seed
  return (/** @type {number} */ below) => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31
    return Math.floor((state / 2 ** 31) * below)
  }
}
const random = randomFrom()

/** @type {{ at: string, did: string, rows: string[], people: string }[]} */
const moments = []
/** @param {import('../database.js').Database} database */
const peopleIn = (database) =>
  sql(database, 'SELECT GROUP_CONCAT(username ORDER BY username) FROM uvanta.person')

/**
 * What may happen on a day. Each is done as it is done in use: the server’s commands write sealed rows and audit.
 * @type {Record<string, (open: Awaited<ReturnType<typeof import('../running.js').startOwn>>, n: number) => Promise<unknown>>}
 */
const USES = {
  'somebody signs in': ({ database }, n) =>
    sql(
      database,
      `INSERT INTO uvanta.session (sid, expires, data) VALUES ('s${n}', NOW() + INTERVAL 1 DAY, '{}')`,
    ),
  'everybody goes on working': ({ database }) =>
    sql(database, `UPDATE uvanta.session SET data = CONCAT('{"at":"', NOW(3), '"}')`),
  'somebody signs out': ({ database }) => sql(database, 'DELETE FROM uvanta.session LIMIT 1'),
  'rows come in': ({ database }, n) => sql(database, rowOf(`row ${n}`)),
  'an administrator comes': ({ installation }, n) =>
    server(installation, ['admin', `admin${n}`], `four unlike words stand here ${n}`),
  'the signing key is renewed': ({ installation }) => server(installation, ['renew-key']),
  'old records are deleted': ({ installation }) =>
    server(asOwner(installation), ['forget', '2020-01-01']),
  'counts are cleared': ({ database }) =>
    sql(database, "DELETE FROM uvanta.request_count WHERE subject LIKE 'row%' LIMIT 1"),
}
const names = Object.keys(USES)

beforeAll(async () => {
  await newRecord(data)
  await withDatabase(data, ({ installation, database }) =>
    writeBackup(installation, database, backup),
  )
  let n = 0
  // Three times the database is stopped and started again, as for an upgrade.
  for (let part = 0; part < 3; part++)
    await withDatabase(data, async (open) => {
      await server(asOwner(open.installation), ['migrate'])
      // Everything happens once at the least, and more of it at random.
      const all = [
        ...names.filter((_, k) => k % 3 === part),
        ...[1, 2].map(() => names[random(names.length)] ?? ''),
      ]
      for (const did of all) {
        await USES[did]?.(open, ++n)
        await pause(1_100)
        const [rows, people] = [await rowsIn(open.database), await peopleIn(open.database)]
        moments.push({ at: dayAndTime(new Date()), did, rows, people })
        await pause(1_100)
      }
    })
})
afterAll(remove)

test('a day of ordinary use is put back as of any moment of it', async () => {
  expect(new Set(moments.map(({ did }) => did))).toEqual(new Set(names))
  const key = () => readFileSync(join(data, 'keys/signing.json'), 'utf8')
  const publicKeys = () => JSON.parse(readFileSync(join(data, 'keys/trusted.json'), 'utf8')).length
  const [newest, ever] = [key(), publicKeys()]
  expect(ever).toBeGreaterThan(1)
  const chosen = Array.from({ length: CUTS }, () => moments[random(moments.length)])
  for (const moment of [...chosen, moments.at(-1)]) {
    if (!moment) continue
    const { said, status } = await uvanta(['--data', data, 'restore', backup, '--until', moment.at])
    expect(status, `${moment.at}, after: ${moment.did}\n${said}`).toBe(0)
    expect(said).toContain('0 faults')
    // A key that was destroyed does not come back, and what every key signed verifies.
    expect([key(), publicKeys()]).toEqual([newest, ever])
    await withDatabase(data, async ({ database }) => {
      expect(await rowsIn(database), moment.did).toEqual(moment.rows)
      expect(await peopleIn(database), moment.did).toBe(moment.people)
      expect(await sql(database, 'SELECT COUNT(*) FROM uvanta.session')).toBe('0')
    })
  }
}, 600_000)
