import type { Visit, VisitSummary } from '@uvanta/contract'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { append, arrival, draft, plan, signedVisit, testOf } from './testing/visit'

/** What was seen of one piece of equipment, visit by visit. */
let app: App
let planner: Agent
let tester: Agent
let world: Awaited<ReturnType<typeof populate>>
const visits: Visit[] = []

/** More than are read at once. */
const NOTES = 620
const BATCH = 100

beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  const server = serve(app)
  planner = await signedIn(server, 'planner')
  tester = await signedIn(server, 'tester')
  const { equipment, tester: person, gaugeId } = world
  const ids = { equipmentId: equipment.id, technicianId: person.id, gaugeId }
  visits.push(await signedVisit(app, tester, ids, PASSWORD))
  const long = await plan(app, planner, equipment.id, person.id)
  const events = [
    ...arrival(),
    ...Array.from({ length: NOTES }, (_, n) =>
      draft('note', { station: 'arrive', text: `Round ${n + 1}` }),
    ),
    ...testOf(app, gaugeId, 'as-found', '4.2'),
  ]
  for (let n = 0; n < events.length; n += BATCH)
    await append(tester, long.id, 1 + n, events.slice(n, n + BATCH)).expect(200)
  await append(tester, long.id, 1 + events.length, [
    draft('stopped', { reason: 'Came on to rain' }),
  ]).expect(200)
  visits.push(long)
  for (let n = 0; n < 2; n++) visits.push(await plan(app, planner, equipment.id, person.id))
})

const history = async () =>
  (await planner.get(`/api/v1/equipment/${world.equipment.id}/history`).expect(200)).body
    .items as VisitSummary[]
const seen = async (visit: Visit | undefined) =>
  (await history()).find((v) => v.visitId === visit?.id)
const check1 = (of: VisitSummary | undefined) =>
  of?.readings.filter((r) => r.item === 'check-1').map((r) => r.value)

describe('the history of a piece of equipment', () => {
  it('has every visit once, the newest first', async () => {
    const ids = (await history()).map((v) => v.visitId)
    expect(ids).toEqual(visits.map((v) => v.id).reverse())
  })
  it('says of each what was seen at it and at no other, however long its log', async () => {
    const [signed, long, planned] = [
      await seen(visits[0]),
      await seen(visits[1]),
      await seen(visits[2]),
    ]
    expect([signed, long, planned].map((v) => v?.state)).toEqual(['signed', 'stopped', 'planned'])
    expect([signed, long, planned].map(check1)).toEqual([['7.1'], ['4.2'], []])
    expect([signed, long, planned].map((v) => v?.found)).toEqual(['pass', 'fail', null])
    expect(signed?.certificateNumber).toMatch(/\d/)
    expect(long?.remarks).toHaveLength(NOTES)
    expect(planned?.remarks).toEqual([])
  })
  it('names who went', async () => {
    const names = (await history()).map((v) => v.technician)
    expect(new Set(names)).toEqual(new Set([world.tester.name]))
  })
})
