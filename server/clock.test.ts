import { addDays } from '@uvanta/core/calendar'
import { foldVisit, type PayloadOf } from '@uvanta/core/visit'
import { DateTime } from 'luxon'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { readEvents } from './service/visit/log'
import { type Agent, codeOf, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { arrival, draft, plan, SIGNATURE, skipToReturn, testOf } from './testing/visit'

/** Certificates that only a wrong clock or a wrong zone would have made possible: the legal date is the utility’s. */
let app: App
let world: Awaited<ReturnType<typeof populate>>
let tester: Agent
let reviewer: Agent
let administrator: Agent
/** Eight in the evening of the utility, which keeps UTC here. */
const NOW = DateTime.fromISO('2026-11-24T20:00:00.000Z', { zone: 'utc' })
const TODAY = '2026-11-24'
beforeAll(async () => {
  app = { ...(await makeTestApp()), now: () => NOW as DateTime<true>, today: () => TODAY }
  world = await populate(app)
  const server = serve(app)
  tester = await signedIn(server, 'tester')
  reviewer = await signedIn(server, 'reviewer')
  administrator = await signedIn(server, 'administrator')
})

interface Claimed {
  readonly licence?: { readonly issuedOn?: string; readonly expiresOn?: string }
  readonly calibratedOn?: string
  readonly calibratedUntil?: string
  readonly hours: number
  readonly offset: number
  /** When the visit was planned, days ago. */
  readonly plannedDaysAgo?: number
  readonly sentAheadHours?: number
}

/** The whole work of a visit with the clock and the zone that a device claims, sent now. */
async function sent(claim: Claimed) {
  const { issuedOn = '2020-01-01', expiresOn = addDays(TODAY, 200) } = claim.licence ?? {}
  await app.db.licences.update({ issuedOn, expiresOn }, { where: { number: 'BT-tester' } })
  const validUntil = claim.calibratedUntil ?? addDays(TODAY, 300)
  const calibratedOn = claim.calibratedOn ?? addDays(TODAY, -100)
  await app.db.calibrations.update(
    { validUntil, calibratedOn },
    { where: { certificate: 'CAL-1' } },
  )
  const { now } = app
  Object.assign(app, { now: () => NOW.minus({ days: claim.plannedDaysAgo ?? 14 }) })
  const visit = await plan(app, tester, world.equipment.id, world.tester.id)
  Object.assign(app, { now })
  const work = [...arrival(), ...testOf(app, world.gaugeId, 'as-found', '7.1'), ...skipToReturn()]
  const events = work.map((e) => {
    const payload =
      e.kind === 'test-started'
        ? claimed(e.payload, expiresOn, calibratedOn, validUntil)
        : e.payload
    const deviceTime = NOW.plus({ hours: claim.hours }).toISO()
    return { ...e, payload, deviceTime, deviceOffset: claim.offset }
  })
  const sentAt = NOW.plus({ hours: claim.sentAheadHours ?? 0 }).toISO()
  const answer = await tester
    .post(`/api/v1/visits/${visit.id}/events`)
    .send({ expected: 1, events, sentAt })
  return { id: visit.id, count: 1 + events.length, answer }
}
const claimed = (
  payload: PayloadOf<'test-started'>,
  expiresOn: string,
  calibratedOn: string,
  calibrationUntil: string,
) => ({
  ...payload,
  licence: { ...payload.licence, expiresOn },
  instruments: payload.instruments.map((i) => ({ ...i, calibratedOn, calibrationUntil })),
})
const sign = ({ id, count }: { id: string; count: number }) =>
  tester.post(`/api/v1/visits/${id}/sign`).send({
    expected: count,
    password: PASSWORD,
    event: {
      ...draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' }),
      deviceTime: NOW.toISO(),
    },
  })
const doubtsOf = async (id: string) => [
  ...new Set(foldVisit(await readEvents(app, id)).clockDoubts.map((d) => d.doubt)),
]
const attest = (agent: Agent, id: string, expected: number, what: 'clock' | 'validity') =>
  agent.post(`/api/v1/visits/${id}/events`).send({
    expected,
    events: [
      {
        ...draft('times-attested', { what, why: 'Seen on site that day' }),
        id: uuidv7(),
        deviceTime: NOW.toISO(),
      },
    ],
  })

describe('the five certificates of a wrong clock', () => {
  it.each<[string, Claimed, string]>([
    [
      'license ended yesterday, the clock right, its zone 14 hours west',
      { licence: { expiresOn: addDays(TODAY, -1) }, hours: 0, offset: -840 },
      'license-not-held',
    ],
    [
      'license ended three days ago, 47 hours back and 14 hours west',
      { licence: { expiresOn: addDays(TODAY, -3) }, hours: -47, offset: -840 },
      'license-not-held',
    ],
    [
      'license begins in two days, 25.9 hours ahead and 14 hours east',
      { licence: { issuedOn: addDays(TODAY, 2) }, hours: 25.9, offset: 840 },
      'license-not-held',
    ],
    [
      'calibration ended yesterday, its zone 14 hours west',
      { calibratedUntil: addDays(TODAY, -1), hours: 0, offset: -840 },
      'gauge-out-of-calibration',
    ],
    [
      'calibrated tomorrow, 20 hours ahead',
      { calibratedOn: addDays(TODAY, 1), hours: 20, offset: 0 },
      'gauge-out-of-calibration',
    ],
  ])('%s: refused', async (_, claim, code) => {
    const { answer } = await sent(claim)
    expect(answer.status).toBe(409)
    expect(codeOf(answer)).toBe(code)
  })
  it('the day after tomorrow: taken, marked, and not signed until the clock is right', async () => {
    const visit = await sent({ hours: 25.9, offset: 840 })
    expect(visit.answer.status).toBe(200)
    expect(await doubtsOf(visit.id)).toEqual(['clock-far-off'])
    const run = foldVisit(await readEvents(app, visit.id)).runs['as-found']
    // The date of the utility, not of the device, which says 2026-11-26.
    expect(run?.date).toBe('2026-11-25')
    const refused = await sign(visit)
    expect([refused.status, codeOf(refused)]).toEqual([409, 'clock-far-off'])
    const note = {
      ...draft('note', { station: 'as-left', text: 'Clock set' }),
      deviceTime: NOW.toISO(),
    }
    await tester
      .post(`/api/v1/visits/${visit.id}/events`)
      .send({ expected: visit.count, events: [note], sentAt: NOW.toISO() })
      .expect(200)
    const signed = await sign({ ...visit, count: visit.count + 1 })
    expect(signed.status).toBe(200)
    const { body } = await tester.get(`/api/v1/certificates/${signed.body.certificateId}`)
    expect(body.payload.clock).toMatch(/12 hours off/)
  })
})

describe('what held on the day and not on arrival', () => {
  const late: Claimed = { licence: { expiresOn: addDays(TODAY, -1) }, hours: -46, offset: 0 }
  it('is marked, and signed once a reviewer has released it', async () => {
    const visit = await sent(late)
    expect(visit.answer.status).toBe(200)
    expect(await doubtsOf(visit.id)).toEqual(['expired-on-arrival'])
    const refused = await sign(visit)
    expect([refused.status, codeOf(refused)]).toEqual([409, 'times-to-release'])
    for (const nobody of [tester, administrator]) {
      const answer = await attest(nobody, visit.id, visit.count, 'validity')
      expect(answer.status).toBeGreaterThanOrEqual(403)
    }
    await attest(reviewer, visit.id, visit.count, 'validity').expect(200)
    expect((await sign({ ...visit, count: visit.count + 1 })).status).toBe(200)
  })
  it('of a calibration too', async () => {
    const visit = await sent({ calibratedUntil: addDays(TODAY, -1), hours: -40, offset: 0 })
    expect(visit.answer.status).toBe(200)
    expect(codeOf(await sign(visit))).toBe('times-to-release')
  })
  it('is not released where nothing waits for it', async () => {
    const visit = await sent({ hours: 0, offset: 0 })
    expect(await doubtsOf(visit.id)).toEqual([])
    const answer = await attest(reviewer, visit.id, visit.count, 'validity')
    expect([answer.status, codeOf(answer)]).toEqual([409, 'nothing-to-attest'])
  })
})

describe('a clock that is off', () => {
  it.each<[string, Claimed, string[]]>([
    ['by four minutes says nothing', { hours: -1, offset: 0, sentAheadHours: 4 / 60 }, []],
    ['by six minutes is marked', { hours: -1, offset: 0, sentAheadHours: 6 / 60 }, ['clock-off']],
    ['an hour to the side is the neighbor', { hours: -1, offset: 60 }, []],
    ['two hours to the side is marked', { hours: -1, offset: 120 }, ['another-zone']],
  ])('%s', async (_, claim, doubts) => {
    const visit = await sent(claim)
    expect(visit.answer.status).toBe(200)
    expect(await doubtsOf(visit.id)).toEqual(doubts)
    expect((await sign(visit)).status).toBe(200)
  })
  it('by 26 hours ahead at most is taken: no time lies further in the future', async () => {
    expect((await sent({ hours: 25.9, offset: 0 })).answer.status).toBe(200)
    const { answer } = await sent({ hours: 26.1, offset: 0 })
    expect([answer.status, codeOf(answer)]).toEqual([422, 'invalid-input'])
    expect(answer.body.fields[0].path).toBe('events[0].deviceTime')
  })
  it('by 70 years is marked like any other, and stops no sending', async () => {
    const visit = await sent({ hours: -1, offset: 0, sentAheadHours: 24 * 365 * 70 })
    expect(visit.answer.status).toBe(200)
    expect(await doubtsOf(visit.id)).toEqual(['clock-far-off'])
  })
  it('by 13 hours signs when an administrator attests it', async () => {
    const visit = await sent({ hours: -13, offset: 0, sentAheadHours: -13 })
    expect(codeOf(await sign(visit))).toBe('clock-far-off')
    expect(codeOf(await attest(reviewer, visit.id, visit.count, 'clock'))).toBe('attests-not')
    await attest(administrator, visit.id, visit.count, 'clock').expect(200)
    const signed = await sign({ ...visit, count: visit.count + 1 })
    expect(signed.status).toBe(200)
    const { body } = await tester.get(`/api/v1/certificates/${signed.body.certificateId}`)
    expect(body.payload.clock).toMatch(/Seen on site that day/)
  })
})
