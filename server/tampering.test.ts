import { CHAIN_START, type VisitEvent } from '@uvanta/core/visit'
import { QueryTypes } from 'sequelize'
import supertest from 'supertest'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { App } from './context'
import { hashOf } from './service/visit/chain'
import { readEvents } from './service/visit/log'
import { makeDailyHead } from './service/integrity/dailyHead'
import { verifyChains } from './service/integrity/verifyChains'
import { type Agent, codeOf, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { keepTables } from './testing/keptTables'
import { plan, signedVisit } from './testing/visit'

/** What somebody with the database’s own rights could change, each on records of its own. */
let app: App
let server: ReturnType<typeof serve>
let tester: Agent
let ids: { equipmentId: string; technicianId: string; gaugeId: string }
let signed: Awaited<ReturnType<typeof signedVisit>>
let path: string
let putBack: () => Promise<void>

beforeAll(async () => {
  app = await makeTestApp()
  const world = await populate(app)
  ids = { equipmentId: world.equipment.id, technicianId: world.tester.id, gaugeId: world.gaugeId }
  server = serve(app)
  tester = await signedIn(server, 'tester')
  signed = await signedVisit(app, tester, ids, PASSWORD, { photo: app.newId() })
  await plan(app, tester, ids.equipmentId, ids.technicianId)
  const certificate = await tester.get(`/api/v1/certificates/${signed.certificateId}`).expect(200)
  path = certificate.body.verifyPath
  await tester.get(`/api/v1/certificates/${signed.certificateId}/pdf`).expect(200)
  const guards = await app.db.sequelize.query<{ name: string }>(
    'SELECT trigger_name AS name FROM information_schema.triggers WHERE trigger_schema = DATABASE()',
    { type: QueryTypes.SELECT },
  )
  for (const { name } of guards) await sql(`DROP TRIGGER ${name}`)
  putBack = await keepTables(app.db.sequelize)
})
beforeEach(() => putBack())
const sql = (text: string, replacements: unknown[] = []) =>
  app.db.sequelize.query(text, { replacements })
const faults = async () => (await verifyChains(app)).faults.map((f) => `${f.of}: ${f.what}`)
const shown = async () => (await supertest(server).get(`/api/v1${path}`).expect(200)).body

/** Recomputes a visit’s chain as somebody would who knows how. */
async function rechain(id: string, events: readonly VisitEvent[]) {
  let head = CHAIN_START
  for (const event of events) {
    head = hashOf(head, id, event)
    await sql('UPDATE visit_event SET hash = ? WHERE visit_id = ? AND seq = ?', [
      head,
      id,
      event.seq,
    ])
  }
  await sql('UPDATE visit SET head_hash = ?, event_count = ? WHERE id = ?', [
    head,
    events.length,
    id,
  ])
}

describe('what was changed behind our back is noticed', () => {
  it('nothing, while nothing was', async () => {
    expect(await faults()).toEqual([])
    expect((await shown()).verdict).toBe('genuine')
  })
  it('one reading', async () => {
    await sql(
      `UPDATE visit_event SET payload = REPLACE(payload, '7.1', '9.1') WHERE kind = 'reading'`,
    )
    expect((await faults()).join()).toMatch(/event \d+ was altered/)
  })
  it('one reading, with the chain and its head recomputed', async () => {
    await sql(
      `UPDATE visit_event SET payload = REPLACE(payload, '7.1', '9.1') WHERE kind = 'reading'`,
    )
    await rechain(signed.id, await readEvents(app, signed.id))
    const found = (await faults()).join()
    expect(found).toMatch(/visit: does not fit its seal/)
    expect(found).toMatch(/certificate: rests on another log/)
  })
  it('the last event cut off, with count and head adjusted', async () => {
    const events = (await readEvents(app, signed.id)).slice(0, -1)
    await sql('DELETE FROM visit_event WHERE visit_id = ? AND seq > ?', [signed.id, events.length])
    await rechain(signed.id, events)
    expect((await faults()).join()).toMatch(/does not fit its seal/)
    expect((await shown()).verdict).toBe('altered')
  })
  it('a whole visit taken away', async () => {
    const open = await app.db.visits.findOne({ where: { state: 'planned' } })
    await sql('DELETE FROM visit_event WHERE visit_id = ?', [open?.id])
    await sql('DELETE FROM visit WHERE id = ?', [open?.id])
    expect(await faults()).toContain('visit: was taken away')
    await sql('DELETE FROM seal WHERE id = ?', [open?.id])
    await sql(`UPDATE seal_total SET total = total - 1 WHERE kind = 'visit'`)
    expect(await faults()).toContain('visit: the number of records does not fit its seal')
  })
  it('the content of a certificate', async () => {
    await sql(
      `UPDATE certificate SET payload = REPLACE(payload, '"name":"The tester"', '"name":"Nobody"'), technician = 'Nobody'`,
    )
    expect((await faults()).join()).toMatch(/does not show what was signed/)
    expect(await shown()).toMatchObject({ verdict: 'altered', payload: null })
  })
  it('a column of a certificate', async () => {
    await sql(`UPDATE certificate SET outcome = 'fail'`)
    expect((await faults()).join()).toMatch(/does not show what was signed/)
    expect((await shown()).verdict).toBe('altered')
  })
  it('its signature', async () => {
    await sql(`UPDATE certificate SET jws = 'x.y.z'`)
    expect((await faults()).join()).toMatch(/does not show what was signed/)
    expect((await shown()).verdict).toBe('altered')
  })
  it('a certificate taken away', async () => {
    for (const table of ['certificate_pdf', 'certificate_status', 'certificate'])
      await sql(`DELETE FROM ${table}`)
    expect(await faults()).toContain('certificate: was issued and is gone')
  })
  it('void made current again', async () => {
    const reviewer = await signedIn(server, 'reviewer')
    const reason = { reason: 'Wrong plate' }
    await reviewer
      .post(`/api/v1/certificates/${signed.certificateId}/void`)
      .send(reason)
      .expect(200)
    expect((await shown()).verdict).toBe('void')
    await sql(`UPDATE certificate_status SET state = 'current', reason = NULL`)
    expect(await faults()).toContain('certificate: is void by the log, and current by its status')
    expect((await shown()).verdict).toBe('altered')
  })
  it('a photograph', async () => {
    expect(await faults()).toEqual([])
    await sql(`UPDATE photo SET content = CONCAT(content, 'x')`)
    expect(await faults()).toContain('photo: does not fit its seal: it was altered')
  })
  it('a line of the audit changed, one taken away, one added', async () => {
    await sql(`UPDATE audit SET person = 'Nobody' ORDER BY id LIMIT 1`)
    expect(await faults()).toContain('audit: does not fit its seal: it was altered')
    await sql('DELETE FROM audit ORDER BY id DESC LIMIT 1')
    expect(await faults()).toContain('audit: was taken away')
    await sql(`INSERT INTO audit (at, person, action, subject) VALUES (NOW(3), 'X', 'y', 'z')`)
    expect(await faults()).toContain('audit: was never sealed')
  })
  it('a key of somebody else, which is published nowhere', async () => {
    await sql(
      `INSERT INTO signing_key VALUES ('foreign', '{"kty":"OKP","crv":"Ed25519","x":"AAAA"}', NOW(3))`,
    )
    expect(await faults()).toContain('key: is none of this installation')
    const { body } = await supertest(server).get('/.well-known/jwks.json').expect(200)
    expect(body.keys).toHaveLength(1)
  })
})

describe('what an authority or a permission rests on', () => {
  /** Has a statement change rows, says what verify-chain finds of it, and puts the table back as it was. */
  async function foundOf(table: string, change: string): Promise<string[]> {
    await sql(`CREATE OR REPLACE TABLE kept_rows AS SELECT * FROM ${table}`)
    await withoutKeys(change)
    const found = await faults()
    await withoutKeys(`DELETE FROM ${table}`, `INSERT INTO ${table} SELECT * FROM kept_rows`)
    expect(await faults()).toEqual([])
    return found
  }
  const withoutKeys = (...statements: string[]) =>
    app.db.sequelize.transaction(async (transaction) => {
      for (const text of [
        'SET FOREIGN_KEY_CHECKS = 0',
        ...statements,
        'SET FOREIGN_KEY_CHECKS = 1',
      ])
        await app.db.sequelize.query(text, { transaction })
    })
  const other = () => `'${app.newId()}'`

  it.each<[string, string, string, () => string]>([
    ['a forged paper', 'pdf', 'certificate_pdf', () => `UPDATE certificate_pdf SET pdf = 'forged'`],
    [
      'the equipment of a certificate',
      'certificate',
      'certificate',
      () => `UPDATE certificate SET equipment_id = ${other()}`,
    ],
    [
      'the moment of a certificate',
      'certificate',
      'certificate',
      () => `UPDATE certificate SET issued_at = '2020-01-01'`,
    ],
    [
      'state and outcome of a visit',
      'visit',
      'visit',
      () => `UPDATE visit SET outcome = 'fail' WHERE state = 'signed'`,
    ],
    ['its technician', 'plan', 'visit', () => `UPDATE visit SET technician_id = ${other()}`],
    ['its equipment', 'plan', 'visit', () => `UPDATE visit SET equipment_id = ${other()}`],
    [
      'how equipment stands',
      'standing',
      'equipment_status',
      () => "UPDATE equipment_status SET `condition` = 'failed'",
    ],
    ['a serial', 'equipment', 'equipment', () => `UPDATE equipment SET serial = 'S-0'`],
    ['a license', 'licence', 'licence', () => `UPDATE licence SET expires_on = '2099-01-01'`],
    [
      'a calibration',
      'calibration',
      'calibration',
      () => `UPDATE calibration SET valid_until = '2099-01-01'`,
    ],
    ['how fine a gauge is', 'gauge', 'gauge', () => 'UPDATE gauge SET accuracy_percent = 0.001'],
    [
      'the roles of a person',
      'person',
      'person',
      () => `UPDATE person SET roles = '["administrator"]' WHERE username = 'tester'`,
    ],
    [
      'the key of a device, put in',
      'device-key',
      'device_key',
      () =>
        `INSERT INTO device_key (id, person_id, label, public_key, registered_at) VALUES (${other()}, '${ids.technicianId}', 'x', '{}', NOW(3))`,
    ],
    [
      'the key of a program, put in',
      'api-key',
      'api_key',
      () =>
        `INSERT INTO api_key (id, name, hash, created_at, created_by) VALUES (${other()}, 'x', SHA2('x', 256), NOW(3), 'x')`,
    ],
    ['a second factor, taken away', 'factor', 'second_factor', () => 'DELETE FROM second_factor'],
    [
      'a text of the library',
      'library',
      'library_version',
      () =>
        `UPDATE library_version SET content = REPLACE(content, '5.0', '4.0') WHERE kind = 'rule-pack'`,
    ],
    ['stock', 'stock', 'stock_move', () => 'UPDATE stock_move SET `change` = 20'],
    ['a telephone number', 'customer', 'customer', () => `UPDATE customer SET phone = '555 9999'`],
    [
      'the counter',
      'counter',
      'certificate_counter',
      () => 'UPDATE certificate_counter SET last = 7',
    ],
    [
      'the newest head of a day, taken away',
      'daily-head',
      'daily_head',
      () => 'DELETE FROM daily_head ORDER BY day DESC LIMIT 1',
    ],
  ])('%s', async (_, of, table, change) => {
    if (table === 'second_factor')
      await app.db.secondFactors.create({
        personId: ids.technicianId,
        secret: 'x',
        lastStep: 0,
        recovery: [],
      })
    if (table === 'stock_move')
      await app.db.stockMoves.create({
        id: app.newId(),
        at: new Date(),
        number: 'KIT-1',
        holderId: ids.technicianId,
        change: 2,
        reason: 'delivery',
        visitId: null,
        person: 'x',
      })
    if (table === 'daily_head')
      for (const days of [3, 2])
        await makeDailyHead({ ...app, now: () => app.now().minus({ days }) })
    if (table === 'certificate_pdf')
      await tester.get(`/api/v1/certificates/${signed.certificateId}/pdf`).expect(200)
    const found = await foundOf(table, change())
    expect(
      found.some((f) => f.startsWith(`${of}: `)),
      found.join('\n'),
    ).toBe(true)
  })
  it('a forged paper is not handed out', async () => {
    const pdf = `/api/v1/certificates/${signed.certificateId}/pdf`
    await tester.get(pdf).expect(200)
    await sql(`UPDATE certificate_pdf SET pdf = 'forged'`)
    expect(codeOf(await tester.get(pdf).expect(409))).toBe('paper-altered')
  })
  it('seals and their counts taken away as well are noticed', async () => {
    await sql(`DELETE FROM licence`)
    await sql(`DELETE FROM seal WHERE kind = 'licence'`)
    await sql(`DELETE FROM seal_total WHERE kind = 'licence'`)
    expect(await faults()).toContain('licence: the number of records does not fit its seal')
  })
  it('a reading with its chain recomputed is no longer shown as genuine', async () => {
    await sql(
      `UPDATE visit_event SET payload = REPLACE(payload, '7.1', '9.1') WHERE kind = 'reading'`,
    )
    expect((await shown()).verdict).toBe('altered')
    await rechain(signed.id, await readEvents(app, signed.id))
    expect((await shown()).verdict).toBe('altered')
  })
})
