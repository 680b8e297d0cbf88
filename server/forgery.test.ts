import { addDays } from '@uvanta/core/calendar'
import { foldVisit, type PayloadOf } from '@uvanta/core/visit'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { readEvents } from './service/visit/log'
import { planVisit } from './service/visit/visits'
import { readPerson } from './service/people/people'
import { type Agent, codeOf, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { append, arrival, draft, plan, SIGNATURE, skipToReturn, testOf } from './testing/visit'
import { v7 as uuidv7 } from 'uuid'

/** What a stolen session, a changed client or a wrong clock would write. */
let app: App
let world: Awaited<ReturnType<typeof populate>>
let tester: Agent
let reviewer: Agent
let planner: Agent
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  const server = serve(app)
  tester = await signedIn(server, 'tester')
  reviewer = await signedIn(server, 'reviewer')
  planner = await signedIn(server, 'planner')
})
const newVisit = () => plan(app, tester, world.equipment.id, world.tester.id)
const start = (change: (p: PayloadOf<'test-started'>) => PayloadOf<'test-started'>) => {
  const [started] = testOf(app, world.gaugeId, 'as-found', '7.1')
  return draft('test-started', change(started!.payload as PayloadOf<'test-started'>))
}
const answerTo = async (events: object[]) => {
  const visit = await newVisit()
  const response = await append(tester, visit.id, 1, [...arrival(), ...events])
  return { status: response.status, code: codeOf(response), id: visit.id }
}

describe('signed', () => {
  it('comes only through signing', async () => {
    const visit = await newVisit()
    const work = [...arrival(), ...testOf(app, world.gaugeId, 'as-found', '7.1'), ...skipToReturn()]
    await append(tester, visit.id, 1, work).expect(200)
    const signed = draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' })
    const forged = await append(tester, visit.id, 1 + work.length, [signed])
    expect([forged.status, codeOf(forged)]).toEqual([409, 'signature-place'])
    const sign = (event: object) =>
      tester
        .post(`/api/v1/visits/${visit.id}/sign`)
        .send({ expected: 1 + work.length, password: PASSWORD, event })
    const other = { ...signed, payload: { ...signed.payload, name: 'Anybody At All' } }
    expect(codeOf(await sign(other))).toBe('signs-as-another')
    // A key that nobody checks is on no record.
    const byKey = { device: app.newId(), signature: 'A'.repeat(86) }
    const claimed = { ...signed, payload: { ...signed.payload, byKey } }
    expect(codeOf(await sign(claimed))).toBe('key-and-password')
    const empty = { ...signed, payload: { ...signed.payload, signature: 'M' } }
    expect((await sign(empty)).status).toBe(422)
    expect((await sign(signed)).body.certificateNumber).toMatch(/-\d{4}-\d{6}$/)
  })
})

describe('gauge and licence are the server’s own records', () => {
  type Claim = PayloadOf<'test-started'>['instruments'][number]
  const channel = (change: Partial<Claim['channels'][number]>) => (i: Claim) => ({
    channels: i.channels.map((c) => ({ ...c, ...change })),
  })
  it.each<[string, Partial<Claim> | ((i: Claim) => Partial<Claim>), string]>([
    ['a gauge that nobody has', { id: uuidv7(), tag: 'NO-SUCH' }, 'gauge-not-registered'],
    ['a finer one', channel({ accuracyPercent: 0.001 }), 'gauge-differs'],
    ['a longer scale', channel({ span: 100 }), 'gauge-differs'],
    ['another serial', { serial: 'DG-9' }, 'gauge-differs'],
    [
      'an invented calibration',
      { calibrationCertificate: 'CAL-INVENTED' },
      'calibration-not-registered',
    ],
    ['a calibration that lasts', { calibrationUntil: '2099-01-01' }, 'calibration-not-registered'],
  ])('%s is refused', async (_, change, code) => {
    const forged = start((p) => ({
      ...p,
      instruments: p.instruments.map((i) => ({
        ...i,
        ...(typeof change === 'function' ? change(i) : change),
      })),
    }))
    const answer = await answerTo([forged])
    expect([answer.status, answer.code]).toEqual([409, code])
  })
  it.each<[string, Partial<PayloadOf<'test-started'>['licence']>, string]>([
    ['another person’s licence', { number: 'BT-other' }, 'license-not-held'],
    ['one that expires later than it does', { expiresOn: '2099-12-31' }, 'license-differs'],
    ['one of another kind', { kind: 'gas-regulator' }, 'license-not-held'],
  ])('%s is refused', async (_, change, code) => {
    const forged = start((p) => ({ ...p, licence: { ...p.licence, ...change } }))
    const answer = await answerTo([forged])
    expect([answer.status, answer.code]).toEqual([409, code])
  })
})

describe('the clock of the device', () => {
  const at = <T extends object>(event: T, deviceTime: string): T => ({ ...event, deviceTime })
  it('revives no licence that has expired', async () => {
    await app.db.licences.update(
      { expiresOn: addDays(app.today(), -3) },
      { where: { number: 'BT-tester' } },
    )
    const before = app.now().minus({ days: 5 })
    const technician = await readPerson(app, world.tester.id)
    // A visit that was planned long ago, so that the time does not lie before its plan.
    const old = await planVisit({ ...app, now: () => app.now().minus({ days: 9 }) }, technician, {
      id: uuidv7(),
      equipmentId: world.equipment.id,
      technicianId: world.tester.id,
      plannedOn: app.today(),
      purpose: 'periodic-test',
      rulePack: 'larkhaven-relief-first',
    })
    const [started] = testOf(app, world.gaugeId, 'as-found', '7.1')
    const payload = started!.payload as PayloadOf<'test-started'>
    const licence = { ...payload.licence, expiresOn: addDays(app.today(), -3) }
    const events = [...arrival(), draft('test-started', { ...payload, licence })]
    const send = (id: string) =>
      append(
        tester,
        id,
        1,
        events.map((e) => at({ ...e, id: uuidv7() }, before.toISO())),
      )
    const early = await send((await newVisit()).id)
    expect([early.status, codeOf(early)]).toEqual([409, 'license-not-held'])
    // Where it may have been so, it is marked, and waits for a reviewer.
    await send(old.id).expect(200)
    const log = await readEvents(app, old.id)
    expect(foldVisit(log).clockDoubts.map((d) => d.doubt)).toContain('expired-on-arrival')
    await app.db.licences.update(
      { expiresOn: addDays(app.today(), 200) },
      { where: { number: 'BT-tester' } },
    )
  })
  it('is marked on the certificate when it lies before the plan', async () => {
    const visit = await newVisit()
    const early = app.now().minus({ days: 3 }).toISO()
    const work = [...arrival(), ...testOf(app, world.gaugeId, 'as-found', '7.1'), ...skipToReturn()]
    await append(
      tester,
      visit.id,
      1,
      work.map((e) => at(e, early)),
    ).expect(200)
    const event = draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' })
    const signed = await tester
      .post(`/api/v1/visits/${visit.id}/sign`)
      .send({ expected: 1 + work.length, password: PASSWORD, event })
      .expect(200)
    const certificate = await tester.get(`/api/v1/certificates/${signed.body.certificateId}`)
    expect(certificate.body.payload.clock).toMatch(
      new RegExp(`${work.length} bear a time before the visit was planned`),
    )
  })
})

describe('a photograph', () => {
  it('that is named and never arrived stops the signature, until it is withdrawn', async () => {
    const visit = await newVisit()
    const photo = draft('photo', { photoId: uuidv7(), station: 'arrive', caption: 'The plate' })
    const work = [
      photo,
      ...arrival(),
      ...testOf(app, world.gaugeId, 'as-found', '7.1'),
      ...skipToReturn(),
    ]
    await append(tester, visit.id, 1, work).expect(200)
    const sign = (expected: number) =>
      tester.post(`/api/v1/visits/${visit.id}/sign`).send({
        expected,
        password: PASSWORD,
        event: draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' }),
      })
    const refused = await sign(1 + work.length)
    expect([refused.status, codeOf(refused)]).toEqual([409, 'photo-missing'])
    const gone = draft('correction', { of: photo.id, why: 'The phone was lost', withdraw: true })
    await append(tester, visit.id, 1 + work.length, [gone]).expect(200)
    await sign(2 + work.length).expect(200)
  })
})

describe('entries of another person', () => {
  it('are not taken under the name of whoever is signed in', async () => {
    const visit = await newVisit()
    const events = [draft('note', { station: 'prepare', text: 'x' })]
    const send = (as: string) =>
      tester.post(`/api/v1/visits/${visit.id}/events`).send({ expected: 1, as, events })
    const refused = await send(world.other.id)
    expect([refused.status, refused.body.type]).toEqual([409, 'urn:uvanta:problem:another-person'])
    expect((await send(world.tester.id)).status).toBe(200)
  })
})

describe('what the sender knows', () => {
  it('cannot be more than there is', async () => {
    const visit = await newVisit()
    const note = draft('note', { station: 'prepare', text: 'x' })
    await append(reviewer, visit.id, 1, [draft('note', { station: 'prepare', text: 'Gate' })])
    const response = await append(tester, visit.id, 1_000_000, [note])
    expect([response.status, response.body.type]).toEqual([
      409,
      'urn:uvanta:problem:unknown-events',
    ])
    await append(tester, visit.id, 2, [note]).expect(200)
  })
})

describe('a correction', () => {
  it.each([
    ['a torque', { dimension: 'torque', unit: 'N·m' }],
    ['another item', { item: 'no-such-item' }],
    ['another run', { run: 'as-left' }],
  ])('makes no %s of a reading, and the test is finished all the same', async (_, change) => {
    const visit = await newVisit()
    const work = [...arrival(), ...testOf(app, world.gaugeId, 'as-found', '7.1')]
    const finish = work.pop()!
    await append(tester, visit.id, 1, work).expect(200)
    const reading = work.find((e) => e.kind === 'reading')!
    const correction = draft('correction', {
      of: reading.id,
      why: 'x',
      withdraw: false,
      payload: { ...reading.payload, ...change },
    })
    await append(tester, visit.id, 1 + work.length, [correction]).expect(409)
    await append(tester, visit.id, 1 + work.length, [finish]).expect(200)
  })
  it('of a reading is the planner’s as little as the reviewer’s', async () => {
    const visit = await newVisit()
    const work = [...arrival(), ...testOf(app, world.gaugeId, 'as-found', '7.1')]
    await append(tester, visit.id, 1, work).expect(200)
    const reading = work.find((e) => e.kind === 'reading')!
    const payload = { ...reading.payload, value: '2.9' }
    const event = draft('correction', { of: reading.id, why: 'x', withdraw: false, payload })
    for (const agent of [planner, reviewer]) {
      await append(agent, visit.id, 1 + work.length, [event]).expect(403)
      await agent
        .post(`/api/v1/visits/${visit.id}/correct`)
        .send({ expected: 1 + work.length, password: PASSWORD, event })
        .expect(403)
    }
  })
})
