import { compactVerify, createLocalJWKSet, decodeProtectedHeader } from 'jose'
import supertest from 'supertest'
import { beforeEach, describe, expect, it } from 'vitest'
import type { App } from './context'
import { makeDailyHead } from './service/integrity/dailyHead'
import { sealHead } from './service/integrity/seals'
import { verifyChains } from './service/integrity/verifyChains'
import { hashOf } from './service/visit/chain'
import { readEvents } from './service/visit/log'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn, codeOf } from './testing/app'
import { append, draft, plan, signedVisit } from './testing/visit'

let app: App
let server: ReturnType<typeof serve>
let tester: Agent
let ids: { equipmentId: string; technicianId: string; gaugeId: string }
beforeEach(async () => {
  app = await makeTestApp()
  const world = await populate(app)
  ids = { equipmentId: world.equipment.id, technicianId: world.tester.id, gaugeId: world.gaugeId }
  server = serve(app)
  tester = await signedIn(server, 'tester')
})
const faults = async () => (await verifyChains(app)).faults.map((f) => `${f.of}: ${f.what}`)
/** The application as it is some days later. */
const later = (days: number): App => {
  const { now } = app
  return { ...app, now: () => now().plus({ days }) }
}
const heads = async () =>
  (await supertest(server).get('/api/v1/heads').expect(200)).body.items as {
    day: string
    jws: string
  }[]

describe('a clock of the server that is set back', () => {
  const setBack = (by: object) => {
    const { now } = app
    Object.assign(app, { now: () => now().minus(by) })
    return () => Object.assign(app, { now })
  }
  const note = (n: number) => draft('note', { text: `Entry ${n}`, station: 'prepare' })
  it('by hours changes nothing: order, chain and numbers of certificates go on', async () => {
    const before = await signedVisit(app, tester, ids, PASSWORD)
    const { id } = await plan(app, tester, ids.equipmentId, ids.technicianId)
    await append(tester, id, 1, [note(1)]).expect(200)
    setBack({ hours: 3 })
    await append(tester, id, 2, [note(2)]).expect(200)
    const after = await signedVisit(app, tester, ids, PASSWORD)
    const stored = await readEvents(app, id)
    expect(stored.map((e) => e.seq)).toEqual([1, 2, 3])
    const numberOf = (v: { certificateNumber?: string | null }) =>
      Number(v.certificateNumber?.match(/(\d+)(?=\D*$)/)?.[1])
    expect(numberOf(after)).toBe(numberOf(before) + 1)
    expect(await faults()).toEqual([])
  })
  it('by days refuses what comes in words, and takes it once the clock is right', async () => {
    const { id } = await plan(app, tester, ids.equipmentId, ids.technicianId)
    const right = setBack({ days: 3 })
    const refused = await append(tester, id, 1, [note(1)])
    expect([refused.status, codeOf(refused)]).toEqual([422, 'invalid-input'])
    right()
    await append(tester, id, 1, [note(1)]).expect(200)
    expect(await faults()).toEqual([])
  })
})

describe('looking through everything', () => {
  it('finds no fault in what others write meanwhile', async () => {
    const visits = await Promise.all(
      [1, 2, 3].map(() => plan(app, tester, ids.equipmentId, ids.technicianId)),
    )
    let writing = true
    const write = Promise.all(
      visits.map(async ({ id }) => {
        let expected = 1
        while (writing) {
          const note = draft('note', { text: `Entry ${expected}`, station: 'prepare' })
          await append(tester, id, expected++, [note])
        }
        return expected
      }),
    )
    const found: string[] = []
    for (let n = 0; n < 12; n++) found.push(...(await faults()))
    writing = false
    const written = await write
    expect(found).toEqual([])
    expect(Math.min(...written)).toBeGreaterThan(3)
    expect(await faults()).toEqual([])
  })
})

describe('the head of a day', () => {
  it('is signed once the day is over, published to anybody, and one follows the other', async () => {
    await signedVisit(app, tester, ids, PASSWORD)
    await makeDailyHead(app)
    await makeDailyHead(app)
    expect(await heads()).toHaveLength(1)
    await makeDailyHead(later(1))
    await makeDailyHead(later(3))
    const [newest, second, first] = await heads()
    const keys = createLocalJWKSet(
      (await supertest(server).get('/.well-known/jwks.json').expect(200)).body,
    )
    const said = async (jws: string) =>
      JSON.parse(new TextDecoder().decode((await compactVerify(jws, keys)).payload)) as {
        day: string
        head: string
        previous: string
        events: number
        visits: number
      }
    const [a, b, c] = await Promise.all([first, second, newest].map((h) => said(h?.jws ?? '')))
    expect(b).toMatchObject({ day: second?.day, previous: a?.head, visits: 1 })
    expect(c).toMatchObject({ previous: b?.head, events: b?.events, head: b?.head })
    expect(a).toMatchObject({ visits: 0, events: 0 })
    expect(decodeProtectedHeader(newest?.jws ?? '').typ).toBe('uvanta-head+jws')
    expect(await faults()).toEqual([])
  })
  it('does not change with what is written on a later day', async () => {
    const { id } = await plan(app, tester, ids.equipmentId, ids.technicianId)
    await makeDailyHead(later(1))
    Object.assign(app, { now: later(2).now })
    await append(tester, id, 1, [draft('note', { text: 'Days after', station: 'prepare' })])
    expect(await faults()).toEqual([])
  })
  it('shows a database that was rewritten by one who has every key', async () => {
    const visit = await signedVisit(app, tester, ids, PASSWORD)
    await makeDailyHead(later(1))
    const events = await readEvents(app, visit.id)
    for (const way of ['update', 'delete'])
      await app.db.sequelize.query(`DROP TRIGGER visit_event_no_${way}`)
    // The last entry is changed, chained and sealed as ours are.
    const last = events.at(-1)!
    const changed = { ...last, deviceOffset: last.deviceOffset + 1 }
    const hash = hashOf(events.at(-2)?.hash ?? '', visit.id, changed)
    await app.db.sequelize.query(
      'UPDATE visit_event SET device_offset = ?, hash = ? WHERE visit_id = ? AND seq = ?',
      { replacements: [changed.deviceOffset, hash, visit.id, last.seq] },
    )
    await app.db.visits.update({ headHash: hash }, { where: { id: visit.id } })
    await app.db.sequelize.transaction((transaction) =>
      sealHead(app, { id: visit.id, eventCount: events.length, headHash: hash }, transaction),
    )
    expect(await faults()).toContain('head: does not fit the logs: they were rewritten since')
  })
  it('is no certificate, and a certificate is none', async () => {
    await makeDailyHead(app)
    const [head] = await heads()
    expect(await app.keys.verify(head?.jws ?? '', 'head')).not.toBeNull()
    expect(await app.keys.verify(head?.jws ?? '')).toBeNull()
    const signed = await app.keys.sign(new TextEncoder().encode('{}'))
    expect(await app.keys.verify(signed, 'head')).toBeNull()
  })
})
