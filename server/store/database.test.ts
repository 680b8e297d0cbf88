import { setTimeout as pause } from 'node:timers/promises'
import { expect, inject, it } from 'vitest'
import { openDatabase } from './database'

const patient = (patienceMs?: number) =>
  openDatabase({
    host: '127.0.0.1',
    user: 'uvanta',
    database: 'information_schema',
    ...inject('mariadb'),
    ...(patienceMs ? { patienceMs } : {}),
  }).sequelize
const codeOf = (asked: Promise<unknown>) =>
  asked.then(
    () => 'answered',
    (error: { original?: { code?: string } }) => error.original?.code,
  )

it('a statement that takes longer than there is patience is given up, and the next ones are not asked', async () => {
  const db = patient(400)
  expect(await codeOf(db.query('SELECT 1'))).toBe('answered')
  const [slow, beside] = await Promise.all([
    codeOf(db.query('SELECT SLEEP(30)')),
    codeOf(db.query('SELECT 2')),
  ])
  expect([slow, beside]).toEqual(['ETIMEDOUT', 'answered'])
  // Refused without being asked: it would have answered.
  expect(await codeOf(db.query('SELECT 3'))).toBe('ETIMEDOUT')
  await pause(2_100)
  expect(await codeOf(db.query('SELECT 4'))).toBe('answered')
  expect(await codeOf(db.query('SELECT 5'))).toBe('answered')
  await db.close()
})
it('without a limit a statement takes as long as it wants', async () => {
  const db = patient()
  expect(await codeOf(db.query('SELECT SLEEP(0.6)'))).toBe('answered')
  await db.close()
})
