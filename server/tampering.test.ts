import { CHAIN_START, type VisitEvent } from '@uvanta/core/visit'
import supertest from 'supertest'
import { beforeEach, describe, expect, it } from 'vitest'
import type { App } from './context'
import { hashOf } from './service/visit/chain'
import { readEvents } from './service/visit/log'
import { verifyChains } from './service/integrity/verifyChains'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { plan, signedVisit } from './testing/visit'

/** What somebody with the database’s own rights could change, each on records of its own. */
let app: App
let server: ReturnType<typeof serve>
let tester: Agent
let ids: { equipmentId: string; technicianId: string; gaugeId: string }
let signed: Awaited<ReturnType<typeof signedVisit>>
let path: string

beforeEach(async () => {
  app = await makeTestApp()
  const world = await populate(app)
  ids = { equipmentId: world.equipment.id, technicianId: world.tester.id, gaugeId: world.gaugeId }
  server = serve(app)
  tester = await signedIn(server, 'tester')
  signed = await signedVisit(app, tester, ids, PASSWORD, { photo: app.newId() })
  await plan(app, tester, ids.equipmentId, ids.technicianId)
  const certificate = await tester.get(`/api/v1/certificates/${signed.certificateId}`).expect(200)
  path = certificate.body.verifyPath
  for (const table of ['visit_event', 'certificate', 'audit', 'photo']) {
    for (const way of ['update', 'delete']) await sql(`DROP TRIGGER ${table}_no_${way}`)
  }
})
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
    await sql('DELETE FROM certificate_status')
    await sql('DELETE FROM certificate')
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
