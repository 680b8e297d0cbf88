import { randomUUID } from 'node:crypto'
import type { Person } from '@uvanta/contract'
import { DateTime } from 'luxon'
import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { makeDailyHead } from './service/integrity/dailyHead'
import { countForgettable, forget, SOMEBODY } from './service/integrity/forget'
import { verifyChains } from './service/integrity/verifyChains'
import { changePerson } from './service/people/people'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { signedVisit } from './testing/visit'

/** Ten years after two tests of the same assembly, when somebody has left. */
let app: App
let later: App
let server: ReturnType<typeof serve>
let tester: Agent
let first: Awaited<ReturnType<typeof signedVisit>>
let second: typeof first
let path: string
let world: Awaited<ReturnType<typeof populate>>
const until = DateTime.utc().plus({ years: 9 }).toJSDate()

const faults = async () => (await verifyChains(later)).faults
const sql = (text: string, replacements: unknown[] = []) =>
  app.db.sequelize.query(text, { replacements })
const shown = async (path = '') =>
  (await supertest(server).get(`/api/v1${path}`).expect(200)).body as { verdict: string }

beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  later = { ...app, now: () => DateTime.utc().plus({ years: 10 }) as DateTime<true> }
  const ids = {
    equipmentId: world.equipment.id,
    technicianId: world.tester.id,
    gaugeId: world.gaugeId,
  }
  server = serve(app)
  tester = await signedIn(server, 'tester')
  first = await signedVisit(app, tester, ids, PASSWORD, { photo: app.newId() })
  second = await signedVisit(app, tester, ids, PASSWORD)
  await app.db.stockMoves.create({
    id: app.newId(),
    at: app.now().toJSDate(),
    number: 'KIT-1',
    holderId: world.tester.id,
    change: 2,
    reason: 'counted',
    visitId: null,
    person: 'The tester',
  })
  path = (await tester.get(`/api/v1/certificates/${first.certificateId}`).expect(200)).body
    .verifyPath
  await makeDailyHead({ ...app, now: () => DateTime.utc().plus({ days: 2 }) as DateTime<true> })
})

describe('records that are older than they are kept', () => {
  it('stay while nobody says that they may go', async () => {
    for (const table of ['visit_event', 'certificate', 'photo', 'audit'])
      await expect(sql(`DELETE FROM ${table}`)).rejects.toThrow(/append-only/)
    await expect(sql("UPDATE stock_move SET person = ''")).rejects.toThrow(/append-only/)
  })
  it('are counted before anything is deleted', async () => {
    const { visits, auditLines } = await countForgettable(later, until)
    expect(visits).toBe(1)
    expect(auditLines).toBeGreaterThan(5)
    expect(await countForgettable(later, new Date(0))).toEqual({ visits: 0, auditLines: 0 })
  })
  it('are deleted but for the last test of the equipment, and the chain holds', async () => {
    const { visits, people } = await forget(later, until)
    expect({ visits, people }).toEqual({ visits: 1, people: 0 })
    await tester.get(`/api/v1/visits/${first.id}`).expect(404)
    await tester.get(`/api/v1/visits/${second.id}`).expect(200)
    for (const table of ['visit_event', 'certificate', 'photo'])
      expect((await sql(`SELECT 1 FROM ${table} WHERE visit_id = ?`, [first.id]))[0]).toEqual([])
    const [move] = await app.db.stockMoves.findAll()
    expect(move).toMatchObject({ person: '', change: 2 })
    await expect(sql('UPDATE stock_move SET `change` = 3')).rejects.toThrow(/append-only/)
    expect(await faults()).toEqual([])
  })
  it('were there: the code of a deleted certificate says so, and nothing else', async () => {
    expect(await shown(path)).toMatchObject({ verdict: 'forgotten', payload: null })
    expect(await shown('/verify/LH-2026-999999-AAAAAAAA')).toMatchObject({ verdict: 'unknown' })
  })
  it('leave a line in the audit, and what is left of a visit is sealed', async () => {
    const lines = await app.db.audit.findAll()
    expect(lines.map((l) => l.action)).toContain('deleted what is kept no longer')
    await expect(sql('UPDATE forgotten_visit SET events = 1')).rejects.toThrow(/append-only/)
    await sql('DROP TRIGGER forgotten_visit_no_update')
    await sql('UPDATE forgotten_visit SET events = events + 1')
    expect((await faults()).map((f) => `${f.of}: ${f.what}`)).toContain(
      'forgotten: does not fit its seal: it was altered',
    )
    await sql('UPDATE forgotten_visit SET events = events - 1')
    expect(await faults()).toEqual([])
  })
  it('does not let a line of the audit go that is younger', async () => {
    const [young] = await app.db.audit.findAll({ order: [['id', 'DESC']], limit: 1 })
    await expect(sql('DELETE FROM audit WHERE id = ?', [young?.id])).rejects.toThrow(/append-only/)
  })
})

describe('somebody who left', () => {
  const ROOT = { id: randomUUID() as string, name: 'Root' } as Person
  const find = async (id: string) => app.db.people.findByPk(id)
  it('keeps the name while a record that is kept bears it, and loses it then', async () => {
    for (const username of ['tester', 'other']) {
      const [row] = await app.db.people.findAll({ where: { username } })
      await changePerson(later, ROOT, row?.id ?? '', row?.version ?? 0, { active: false })
    }
    const { people } = await forget(later, until)
    expect(people).toBe(1)
    expect((await find(world.tester.id))?.name).toBe('The tester')
    const left = await app.db.people.findOne({ where: { name: SOMEBODY } })
    expect(left?.username).toMatch(/^left-/)
    expect(await app.db.licences.findAll({ where: { personId: left?.id } })).toEqual([])
    expect(await faults()).toEqual([])
  })
})
