import type { EventDraft, PayloadOf } from '@uvanta/core/visit'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { appendEvents } from './service/visit/append'
import { readPerson } from './service/people/people'
import { verifyChains } from './service/integrity/verifyChains'
import { planVisit } from './service/visit/visits'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn, codeOf } from './testing/app'
import { append, arrival, draft, plan, SIGNATURE, skipToReturn, testOf } from './testing/visit'

let app: App
let world: Awaited<ReturnType<typeof populate>>
let tester: Agent
let other: Agent
let reviewer: Agent
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  const server = serve(app)
  tester = await signedIn(server, 'tester')
  other = await signedIn(server, 'other')
  reviewer = await signedIn(server, 'reviewer')
})
const newVisit = () => plan(app, tester, world.equipment.id, world.tester.id)
const read = async (id: string) => (await tester.get(`/api/v1/visits/${id}`).expect(200)).body

describe('appending', () => {
  it('is idempotent: the same batch twice stands once', async () => {
    const visit = await newVisit()
    const events = arrival()
    const first = await append(tester, visit.id, 1, events).expect(200)
    const second = await append(tester, visit.id, 1, events).expect(200)
    expect(second.body).toEqual(first.body)
    expect((await read(visit.id)).events).toHaveLength(4)
  })
  it('accepts a batch of which a part has arrived already', async () => {
    const visit = await newVisit()
    const events = arrival()
    await append(tester, visit.id, 1, events.slice(0, 1)).expect(200)
    await append(tester, visit.id, 1, events).expect(200)
    expect((await read(visit.id)).events.map((e: { seq: number }) => e.seq)).toEqual([1, 2, 3, 4])
  })
  it('takes all of a batch or nothing', async () => {
    const visit = await newVisit()
    const response = await append(tester, visit.id, 1, [
      ...arrival(),
      draft('station-done', { station: 'rebuild' }),
    ])
    expect(response.status).toBe(409)
    expect(codeOf(response)).toBe('station-out-of-order')
    expect((await read(visit.id)).events).toHaveLength(1)
  })
  it('refuses an id that is used already with other content', async () => {
    const visit = await newVisit()
    const [first] = arrival()
    await append(tester, visit.id, 1, [first!]).expect(200)
    const changed = { ...first!, payload: { station: 'arrive' } }
    const response = await append(tester, visit.id, 2, [changed])
    expect(response.status).toBe(409)
    expect(response.body.type).toBe('urn:uvanta:problem:changed-event')
  })
  it('takes what an old device writes in an earlier form, in the newest one, and knows it again', async () => {
    const visit = await newVisit()
    const [start] = testOf(app, world.gaugeId, 'as-found', '7.2')
    const { instruments, ...test } = start!.payload as PayloadOf<'test-started'>
    const [{ channels, ...gauge }] = instruments as [(typeof instruments)[number]]
    const { span, unit, ...accuracy } = channels[0]!
    const scale = { span, spanUnit: unit, ...accuracy }
    const { id: _, dimension: __, ...oneScale } = { ...scale }
    const { version: ___, ...event } = start!
    const old = { ...event, payload: { ...test, gauge: { ...gauge, ...oneScale } } }
    const batch = [...arrival(), old as unknown as EventDraft]
    await append(tester, visit.id, 1, batch).expect(200)
    await append(tester, visit.id, 1, batch).expect(200)
    const stored = (await read(visit.id)).events.at(-1)
    expect(stored).toMatchObject({ version: 2, payload: { instruments: [{ tag: 'G-01' }] } })
    const broken = { ...event, id: uuidv7(), payload: { ...test, gauge: 7 } }
    const refused = await append(tester, visit.id, 5, [broken as unknown as EventDraft])
    expect(refused.status).toBe(422)
    expect(refused.body.fields[0].path).toBe('events[0].payload.gauge')
    expect((await verifyChains(app)).faults).toEqual([])
  })
  it('refuses a clock that runs ahead', async () => {
    const visit = await newVisit()
    const late = {
      ...draft('note', { station: 'prepare', text: 'x' }),
      deviceTime: '2099-01-01T00:00:00.000Z',
    }
    expect(codeOf(await append(tester, visit.id, 1, [late]))).toBe('invalid-input')
  })
})

describe('two writers', () => {
  it('the slower one gets the newer events, keeps his own, and sends them behind', async () => {
    const visit = await newVisit()
    await append(reviewer, visit.id, 1, [
      draft('note', { station: 'prepare', text: 'Gate code 4711' }),
    ]).expect(200)
    const mine = arrival()
    const conflict = await append(tester, visit.id, 1, mine)
    expect(conflict.status).toBe(409)
    expect(conflict.body.type).toBe('urn:uvanta:problem:newer-events')
    expect(conflict.body.events).toHaveLength(1)
    expect(codeOf(conflict)).toBe('newer-events')
    await append(tester, visit.id, 2, mine).expect(200)
    expect((await read(visit.id)).events).toHaveLength(5)
  })
  it('at the very same time end with one order and no loss', async () => {
    const visit = await newVisit()
    const note = (text: string) => [draft('note', { station: 'prepare', text })]
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, n) =>
        append(n % 2 ? tester : reviewer, visit.id, 1, note(`n${n}`)),
      ),
    )
    expect(answers.filter((a) => a.status === 200)).toHaveLength(1)
    expect(answers.filter((a) => a.status === 409)).toHaveLength(7)
    expect((await read(visit.id)).events).toHaveLength(2)
  })
})

describe('whose visit it is', () => {
  it('another technician reads it and does not write it', async () => {
    const visit = await newVisit()
    await other.get(`/api/v1/visits/${visit.id}`).expect(200)
    await append(other, visit.id, 1, arrival()).expect(403)
  })
  it('the office adds notes and asks for corrections, and measures and corrects nothing', async () => {
    const visit = await newVisit()
    await append(reviewer, visit.id, 1, arrival()).expect(403)
    const note = draft('note', { station: 'prepare', text: 'Gate code' })
    await append(reviewer, visit.id, 1, [note]).expect(200)
    const change = { of: note.id, why: 'x', withdraw: true }
    await append(reviewer, visit.id, 2, [draft('correction', change)]).expect(403)
    const ask = { of: note.id, why: 'Wrong gate' }
    await append(reviewer, visit.id, 2, [draft('correction-asked', ask)]).expect(200)
  })
  it('lists show a technician his own', async () => {
    await newVisit()
    const mine = await tester.get('/api/v1/visits?scope=all').expect(200)
    expect(mine.body.items.length).toBeGreaterThan(0)
    const theirs = await other.get('/api/v1/visits?scope=all').expect(200)
    expect(theirs.body.items).toEqual([])
  })
})

describe('the read tables', () => {
  it('follow the log in the same transaction', async () => {
    const visit = await newVisit()
    const events = [...arrival(), ...testOf(app, world.gaugeId, 'as-found', '3.2')]
    await append(tester, visit.id, 1, events).expect(200)
    const equipment = await tester.get(`/api/v1/equipment/${world.equipment.id}`)
    expect(equipment.body).toMatchObject({ condition: 'failed', lastTestedOn: app.today() })
    expect(equipment.body.repairBy > app.today()).toBe(true)
    const row = await app.db.visits.findByPk(visit.id)
    expect(row).toMatchObject({
      state: 'under-way',
      done: ['prepare', 'arrive'],
      eventCount: 1 + events.length,
    })
  })
  it('keep the standing of a newer test when an older visit is corrected', async () => {
    // Three weeks ago, by the clock of the server as by that of the device.
    const then = app.now().minus({ days: 20 })
    const past = { ...app, now: () => then }
    const technician = await readPerson(app, world.tester.id)
    const old = await planVisit(past, technician, {
      id: uuidv7(),
      equipmentId: world.equipment.id,
      technicianId: world.tester.id,
      plannedOn: app.today(),
      purpose: 'periodic-test',
      rulePack: 'larkhaven-relief-first',
    })
    const before = [...arrival(), ...testOf(app, world.gaugeId, 'as-found', '3.2')].map((e) => ({
      ...e,
      deviceTime: then.toISO(),
    }))
    await appendEvents(past, technician, old.id, 1, before as EventDraft[])
    const fresh = await newVisit()
    await append(tester, fresh.id, 1, [
      ...arrival(),
      ...testOf(app, world.gaugeId, 'as-found', '7.0'),
    ]).expect(200)
    const reading = before.find((e) => e.kind === 'reading')!
    await append(tester, old.id, 1 + before.length, [
      draft('correction', {
        of: reading.id,
        why: 'Digit',
        withdraw: false,
        payload: { ...reading.payload, value: '1.1' },
      }),
    ]).expect(200)
    const equipment = await tester.get(`/api/v1/equipment/${world.equipment.id}`)
    expect(equipment.body).toMatchObject({ condition: 'in-order', lastTestedOn: app.today() })
  })
})

describe('signing', () => {
  it('wants the right password, and leaves nothing behind with a wrong one', async () => {
    const visit = await newVisit()
    const events = [
      ...arrival(),
      ...testOf(app, world.gaugeId, 'as-found', '7.1'),
      ...skipToReturn(),
    ]
    await append(tester, visit.id, 1, events).expect(200)
    const event = draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' })
    const sign = (password: string) =>
      tester
        .post(`/api/v1/visits/${visit.id}/sign`)
        .send({ expected: 1 + events.length, password, event })
    expect(codeOf(await sign('wrong'))).toBe('password-wrong')
    expect((await read(visit.id)).events).toHaveLength(1 + events.length)
    const signed = await sign(PASSWORD)
    expect(signed.status).toBe(200)
    expect(signed.body).toMatchObject({ state: 'signed', outcome: 'pass' })
    expect((await sign(PASSWORD)).body.certificateNumber).toBe(signed.body.certificateNumber)
  })
})

describe('the chain', () => {
  it('holds over everything written here', async () => {
    const { faults, events } = await verifyChains(app)
    expect(faults).toEqual([])
    expect(events).toBeGreaterThan(40)
  })
  it('cannot be rewritten through the database, and shows it when it was by force', async () => {
    const update = () =>
      app.db.sequelize.query("UPDATE visit_event SET payload = '{}' WHERE seq = 2 LIMIT 1")
    await expect(update()).rejects.toThrow(/append-only/)
    await expect(app.db.sequelize.query('DELETE FROM visit_event')).rejects.toThrow(/append-only/)
    await app.db.sequelize.query('DROP TRIGGER visit_event_no_update')
    await update()
    const { faults } = await verifyChains(app)
    expect(faults.map((f) => f.what)).toContain('event 2 was altered')
  })
})
