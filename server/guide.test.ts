import type { StockItem } from '@uvanta/contract'
import type { PlacedStep } from '@uvanta/core/guide'
import { addDays } from '@uvanta/core/calendar'
import { Job, type JobOptions, shippedLibrary } from '@uvanta/core/testing'
import { appended, emptyLog, MOST_PHOTOS, slotFigure } from '@uvanta/core/visit'
import supertest from 'supertest'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { planDay, refreshDemoDay } from './demo/day'
import { planFollowUp } from './service/visit/followUp'
import { readEvents } from './service/visit/log'
import { createEquipment } from './service/register/equipment'
import {
  type Agent,
  codeOf,
  equipmentInput,
  makeTestApp,
  PASSWORD,
  populate,
  serve,
  signedIn,
} from './testing/app'
import { SMALLEST_PNG } from './testing/picture'
import { append, draft, plan, SIGNATURE } from './testing/visit'

let app: App
let world: Awaited<ReturnType<typeof populate>>
let tester: Agent
let planner: Agent
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  const server = serve(app)
  tester = await signedIn(server, 'tester')
  planner = await signedIn(server, 'planner')
})

const PACK = 'larkhaven-relief-first'
const { guides, families, rulePacks } = shippedLibrary
/**
 * Every guide in its first variant with all sub-jobs, on the first kind of its family; a tested kind where there is
 * one. The same rules carry each variant and combination out in core/visit/everyGuide.test.ts.
 */
const jobs = guides.flatMap((guide) => {
  const kinds = families.find((f) => f.id === guide.family)?.kinds ?? []
  const tests = rulePacks.find((p) => p.id === PACK)?.tests ?? []
  const tested = kinds.find((k) => tests.some((t) => t.kind === k))
  const kind = tested ?? kinds[0] ?? ''
  return guide.variants.slice(0, 1).map((v) => ({
    guide,
    kind,
    variant: v.id,
    jobs: (guide.jobs ?? []).map((j) => j.id),
    tested: tested !== undefined,
  }))
})
type JobCase = (typeof jobs)[number]

const orders = (step: PlacedStep) => step.inspect === 'disc-pin'

let tags = 0
async function planned(
  { guide, kind, tested }: JobCase,
  prefix = 'JOB-',
  findings: JobOptions['findings'] = {},
) {
  const equipment = await createEquipment(app, world.tester, {
    ...equipmentInput(world.site.id, `${prefix}${(tags += 1)}`, addDays(app.today(), 9)),
    kind,
    family: guide.family,
    programme: families.find((f) => f.id === guide.family)?.programme ?? '',
  })
  const visit = await plan(app, tester, equipment.id, world.tester.id, tested ? PACK : null)
  const job = new Job({
    family: guide.family,
    kind,
    ...(tested ? { packId: PACK } : {}),
    newId: () => uuidv7(),
    findings,
    from: app.now().minus({ hours: 6 }).toISO(),
  })
  return { equipment, visit, job }
}

/** Sends a job’s events in batches, as a device does. */
async function send(visitId: string, { drafts }: Job, from = 0) {
  for (let n = from; n < drafts.length; n += 40) {
    await append(tester, visitId, 1 + n, drafts.slice(n, n + 40)).expect(200)
  }
}

describe('a guide through the interface', () => {
  it.each(
    jobs.map(
      (j) => [`${j.guide.id}, ${[j.variant, ...j.jobs].join(' and ')}, on a ${j.kind}`, j] as const,
    ),
  )('%s: to its end', async (_, one) => {
    const { visit, job, equipment } = await planned(one)
    job.choose(one.guide, one.variant, true, one.jobs).toMakeSafe().toAsLeft()
    if (!one.tested) {
      job.must('checked', { run: 'as-left', outcome: 'works', text: 'Works' }).carryOut('as-left')
    }
    await send(visit.id, job)
    const read = await tester.get(`/api/v1/visits/${visit.id}`).expect(200)
    expect(read.body.done).toContain('return')
    if (one.tested) return
    // Without a field test it is signed on its function check, and ends in a service report.
    const event = draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' })
    const signed = await tester
      .post(`/api/v1/visits/${visit.id}/sign`)
      .send({ expected: 1 + job.drafts.length, password: PASSWORD, event })
      .expect(200)
    expect(signed.body.state).toBe('signed')
    expect(signed.body.certificateNumber).toMatch(/^LH-/)
    const status = await tester.get(`/api/v1/equipment/${equipment.id}`).expect(200)
    expect(status.body.condition).toBe('in-order')
  })
  it('refuses a step out of order, and keeps nothing of its batch', async () => {
    const [one] = jobs as [JobCase]
    const { visit, job } = await planned(one, 'OUT-')
    job.choose(one.guide, one.variant).toMakeSafe()
    const without = job.drafts.filter((e) => (e.payload as { step?: string }).step !== '1.2')
    const answer = await append(tester, visit.id, 1, without.slice(0, 40))
    expect(answer.status).toBe(409)
    expect(codeOf(answer)).toBe('step-out-of-order')
    const read = await tester.get(`/api/v1/visits/${visit.id}`)
    expect(read.body.events).toHaveLength(1)
  })
})

describe('the stock', () => {
  const one = () => jobs.find((j) => j.guide.id === 'spool-valve') as JobCase
  const held = async (number: string) => {
    const { body } = await tester.get('/api/v1/stock').expect(200)
    const item = (body as { items: StockItem[] }).items.find((i) => i.number === number)
    return item?.held.find((h) => h.holderId === world.tester.id)?.quantity ?? 0
  }
  it('is put up by the planner, once however often it is sent', async () => {
    const planner = await signedIn(serve(app), 'planner')
    const move = {
      id: uuidv7(),
      number: 'K-TEST-1',
      holderId: world.tester.id,
      change: 3,
      reason: 'Delivery',
    }
    await tester.post('/api/v1/stock').send(move).expect(403)
    await planner.post('/api/v1/stock').send(move).expect(200)
    await planner.post('/api/v1/stock').send(move).expect(200)
    expect(await held('K-TEST-1')).toBe(3)
    const { id: office } = (await planner.get('/api/v1/session')).body.person as { id: string }
    await planner
      .post('/api/v1/stock')
      .send({ ...move, id: uuidv7(), holderId: office })
      .expect(422)
  })
  it('goes down with the kit that is taken, in the same transaction', async () => {
    const { visit, job } = await planned(one(), 'STOCK-')
    job.choose(one().guide, one().variant).takeKit()
    const number = job.state.kit?.number ?? ''
    const before = await held(number)
    await send(visit.id, job)
    expect(await held(number)).toBe(before - 1)
    // A batch that is refused moves nothing.
    const again = draft('kit-taken', { number: 'K-OTHER', how: 'typed', items: [] })
    await append(tester, visit.id, 1 + job.drafts.length, [again]).expect(409)
    expect(await held(number)).toBe(before - 1)
  })
  it('is not taken from an empty van, unless it is said where it came from', async () => {
    const { visit, job } = await planned(one(), 'EMPTY-')
    job.choose(one().guide, one().variant)
    await send(visit.id, job)
    const before = job.drafts.length
    job.takeKit()
    const [kit] = job.drafts.slice(before)
    const number = job.state.kit?.number ?? ''
    const book = (change: number) =>
      planner
        .post('/api/v1/stock')
        .send({ id: uuidv7(), number, holderId: world.tester.id, change, reason: 'Counted' })
        .expect(200)
    await book(1)
    await book(-1 - (await held(number)))
    expect(await held(number)).toBeLessThan(1)
    const take = (payload: object) =>
      append(tester, visit.id, 1 + before, [{ ...kit, id: uuidv7(), payload }])
    const refused = await take(kit?.payload ?? {}).expect(409)
    expect(codeOf(refused)).toBe('kit-not-on-van')
    await take({ ...kit?.payload, departure: 'Fetched from the depot' }).expect(200)
    await book(5)
  })
})

describe('a temporary repair', () => {
  it('plans its own renewal when it is signed', async () => {
    const [detector] = jobs.filter((j) => j.guide.id === 'double-check-detector') as [JobCase]
    const { visit } = await planned(detector, 'TEMP-')
    const until = addDays(app.today(), 20)
    const events = [
      draft('station-done', { station: 'prepare' }),
      draft('identity', { outcome: 'confirmed' }),
      draft('station-done', { station: 'arrive' }),
      draft('as-found-impossible', { reason: 'Shut off' }),
      draft('station-done', { station: 'as-found' }),
      draft('station-done', { station: 'make-safe' }),
      draft('station-done', { station: 'open-up' }),
      draft('repair', {
        text: 'Disc turned over',
        parts: [],
        temporary: { until, permittedBy: 'The authority' },
      }),
    ]
    await append(tester, visit.id, 1, events).expect(200)
    const row = await app.db.visits.findByPk(visit.id)
    await app.db.sequelize.transaction((transaction) =>
      readEvents(app, visit.id).then((read) =>
        planFollowUp(app, world.tester, { ...appended(emptyLog, read), visit: row!, transaction }),
      ),
    )
    const { body } = await tester.get(`/api/v1/visits?on=${until}&scope=mine`).expect(200)
    expect(body.items).toMatchObject([{ purpose: 'temporary-repair', plannedOn: until }])
  })
})

describe('photographs', () => {
  const png = SMALLEST_PNG
  const other = Buffer.concat([png.subarray(0, 41), Buffer.from([1]), png.subarray(42)])
  const put = (visitId: string, id: string, content: Buffer, type = 'image/png') =>
    tester.put(`/api/v1/visits/${visitId}/photos/${id}`).set('Content-Type', type).send(content)
  it('are kept once, and shown to who is signed in', async () => {
    const { visit } = await planned(jobs[0] as JobCase, 'PHOTO-')
    const id = uuidv7()
    await put(visit.id, id, png).expect(204)
    await put(visit.id, id, png).expect(204)
    await put(visit.id, id, other).expect(409)
    const shown = await tester.get(`/api/v1/visits/${visit.id}/photos/${id}`).expect(200)
    expect(shown.headers['content-type']).toBe('image/png')
    expect(shown.body).toEqual(png)
    const colleague = await signedIn(serve(app), 'other')
    await colleague.get(`/api/v1/visits/${visit.id}/photos/${id}`).expect(200)
    await supertest(serve(app)).get(`/api/v1/visits/${visit.id}/photos/${id}`).expect(401)
  })
  it('are known by their content, not by what an upload says of itself', async () => {
    const { visit } = await planned(jobs[1] as JobCase, 'PHOTO-')
    await put(visit.id, uuidv7(), Buffer.from('<svg onload="x"/>')).expect(422)
    await put(visit.id, uuidv7(), png, 'text/html').expect(415)
    await put(visit.id, uuidv7(), Buffer.alloc(4_000_000)).expect(413)
    await put(uuidv7(), uuidv7(), png).expect(404)
  })
  it('are as many as a visit can have', async () => {
    const { visit } = await planned(jobs[2] as JobCase, 'PHOTO-')
    const ids = Array.from({ length: MOST_PHOTOS }, () => uuidv7())
    for (const id of ids) await put(visit.id, id, png).expect(204)
    expect(codeOf(await put(visit.id, uuidv7(), png).expect(409))).toBe('photos-full')
    await put(visit.id, ids[0] ?? '', png).expect(204)
  })
  it('come to a visit that is open', async () => {
    const { visit } = await planned(jobs[3] as JobCase, 'PHOTO-')
    const id = uuidv7()
    await put(visit.id, id, png).expect(204)
    await app.db.visits.update({ state: 'stopped' }, { where: { id: visit.id } })
    expect(codeOf(await put(visit.id, uuidv7(), png).expect(409))).toBe('visit-closed')
    // What has arrived already may be sent again.
    await put(visit.id, id, png).expect(204)
  })
})

describe('what bolts were tightened to', () => {
  it('stands on the next visit, the newest figure of each', async () => {
    const one = jobs.find((j) => j.guide.id === 'dome-regulator') as JobCase
    const { visit, equipment, job } = await planned(one, 'TORQUE-')
    job.choose(one.guide, 'gas').toMakeSafe()
    job.carryOut('make-safe').done('make-safe').carryOut('open-up').done('open-up')
    job.carryOut('rebuild', (s) => s.tighten === 'cap-bolts')
    const step = job.due('rebuild')
    const figure = slotFigure(job.state, shippedLibrary, 'cap-torque')
    const tightened = {
      fastener: 'cap-bolts',
      value: figure?.value ?? '',
      unit: figure?.unit as 'N·m',
    }
    job.must('guide-step', { step: step?.id ?? '', at: 'rebuild', tightened })
    await send(visit.id, job)
    const before = addDays(app.today(), -40)
    await app.db.visits.update({ plannedOn: before }, { where: { id: visit.id } })
    const pack = one.tested ? PACK : null
    const next = await plan(app, tester, equipment.id, world.tester.id, pack)
    const read = await tester.get(`/api/v1/visits/${next.id}`).expect(200)
    expect(read.body.events[0].payload.tightened).toEqual([
      { ...tightened, guideId: 'dome-regulator', on: before },
    ])
  })
})

describe('work that waits for a part', () => {
  it('is planned for the day on which it has come, once, with what to bring', async () => {
    const one = jobs.find((j) => j.guide.id === 'dome-regulator') as JobCase
    const { visit, equipment, job } = await planned(one, 'ORDER-', { 'disc-pin': 'order' })
    job.choose(one.guide, 'gas').toMakeSafe()
    job.carryOut('make-safe').done('make-safe').carryOut('open-up', orders)
    const due = job.due('open-up')
    job.must('guide-step', { step: due?.id ?? '', at: 'open-up', finding: 'order' })
    const comeBackOn = addDays(app.today(), 5)
    job.must('stopped', { reason: 'Pin bent', order: { what: 'Pin kit K-DDR-083', comeBackOn } })
    await send(visit.id, job)
    const last = job.drafts.slice(-1)
    await append(tester, visit.id, job.drafts.length, last).expect(200)
    const rows = await app.db.visits.findAll({ where: { equipmentId: equipment.id } })
    const next = rows.filter((v) => v.id !== visit.id)
    expect(next.map((v) => [v.purpose, v.plannedOn, v.state])).toEqual([
      ['part-ordered', comeBackOn, 'planned'],
    ])
    const read = await tester.get(`/api/v1/visits/${next[0]?.id}`).expect(200)
    expect(read.body.events[0].payload.bring).toEqual(['Pin kit K-DDR-083'])
    // The kit is kept back for that visit until it begins, and no other kit is.
    const stock = async () => {
      const { body } = await tester.get('/api/v1/stock').expect(200)
      return (body as { items: StockItem[] }).items.flatMap((i) =>
        i.reserved.map((r) => [i.number, r.visitId, r.on]),
      )
    }
    expect(await stock()).toEqual([['K-DDR-083', next[0]?.id, comeBackOn]])
    await app.db.visits.update({ state: 'under-way' }, { where: { id: next[0]?.id ?? '' } })
    expect(await stock()).toEqual([])
  })
})

describe('the simulated gauge', () => {
  it('is told of where it is, and may be connected to by the page', async () => {
    const linked = { ...app, config: { ...app.config, gaugeUrl: 'ws://127.0.0.1:4890' } }
    const agent = await signedIn(serve(linked), 'tester')
    const answer = await agent.get('/api/v1/gauge-link').expect(200)
    expect(answer.body).toEqual({ url: 'ws://127.0.0.1:4890' })
    expect(answer.headers['content-security-policy']).toContain(
      "connect-src 'self' ws://127.0.0.1:4890",
    )
  })
  it('is not spoken of to a browser on another machine, where it would look for its own', async () => {
    const gaugeUrl = 'ws://127.0.0.1:4890'
    const config = { ...app.config, gaugeUrl, publicUrl: 'https://uvanta.example' }
    const agent = await signedIn(serve({ ...app, config }), 'tester')
    const answer = await agent.get('/api/v1/gauge-link').set('Host', 'uvanta.example').expect(200)
    expect(answer.body).toEqual({ url: null })
    expect(answer.headers['content-security-policy']).not.toContain('ws:')
  })
  it('is not there where none was started', async () => {
    const answer = await tester.get('/api/v1/gauge-link').expect(200)
    expect(answer.body).toEqual({ url: null })
    expect(answer.headers['content-security-policy']).toContain("connect-src 'self';")
  })
})

describe('a demo that is started on a later day', () => {
  it('is left alone where it is no demo', async () => {
    expect(await refreshDemoDay(app)).toBe(0)
  })
  it('plans nothing for people who are not there', async () => {
    const before = await app.db.visits.count()
    expect(await planDay(app, {}, [])).toBe(0)
    expect(await app.db.visits.count()).toBe(before)
  })
})
