import { addDays } from '@uvanta/core/calendar'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { verifyChains } from './service/integrity/verifyChains'
import { type Agent, makeTestApp, populate, serve, signedIn, codeOf } from './testing/app'
import { append, arrival, draft, plan } from './testing/visit'

let app: App
let world: Awaited<ReturnType<typeof populate>>
let tester: Agent
let other: Agent
let planner: Agent
let trainee: Agent
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  const server = serve(app)
  tester = await signedIn(server, 'tester')
  other = await signedIn(server, 'other')
  planner = await signedIn(server, 'planner')
  trainee = await signedIn(server, 'trainee')
})
const newVisit = () => plan(app, tester, world.equipment.id, world.tester.id)
const day = (n: number) => addDays(app.today(), n)
const replan = (agent: Agent, id: string, body: object) =>
  agent.post(`/api/v1/visits/${id}/plan`).send(body)

describe('a visit that is planned otherwise', () => {
  it('moves to the day and hour, and says so in its log', async () => {
    const visit = await newVisit()
    const moved = { plannedOn: day(2), time: '08:30', technicianId: world.tester.id, why: 'Closed' }
    const { body } = await replan(planner, visit.id, moved).expect(200)
    expect(body).toMatchObject({ plannedOn: day(2), time: '08:30', state: 'planned' })
    expect(body.events.at(-1)).toMatchObject({ kind: 'replanned', personName: 'The planner' })
    const on = async (date: string) =>
      (await tester.get(`/api/v1/visits?on=${date}`)).body.items.map((v: { id: string }) => v.id)
    expect(await on(day(2))).toContain(visit.id)
    expect(await on(day(0))).not.toContain(visit.id)
    const ahead = await tester.get(`/api/v1/visits?from=${day(1)}&before=${day(3)}`)
    expect(ahead.body.items.map((v: { id: string }) => v.id)).toContain(visit.id)
  })
  it('is another’s from then on: he writes, the one before does not, and what he wrote stays his', async () => {
    const visit = await newVisit()
    await append(tester, visit.id, 1, arrival()).expect(200)
    await replan(planner, visit.id, { plannedOn: day(0), technicianId: world.other.id }).expect(200)
    const note = [draft('note', { station: 'as-found', text: 'Gate open' })]
    await append(tester, visit.id, 5, note).expect(403)
    await append(other, visit.id, 5, note).expect(200)
    const { body } = await other.get(`/api/v1/visits/${visit.id}`)
    const by = body.events.map((e: { personName: string }) => e.personName)
    expect(by.slice(1)).toEqual([
      'The tester',
      'The tester',
      'The tester',
      'The planner',
      'The other',
    ])
    expect(body.technician).toBe('The other')
    expect((await verifyChains(app)).faults).toEqual([])
  })
  it('is the office’s to plan, and of no use once it is closed or for somebody who does not go', async () => {
    const visit = await newVisit()
    const to = (technicianId: string) => ({ plannedOn: day(1), technicianId })
    await replan(tester, visit.id, to(world.tester.id)).expect(403)
    const { items } = (await planner.get('/api/v1/people')).body
    const office = items.find((p: { username: string }) => p.username === 'reviewer')
    await replan(planner, visit.id, to(office.id)).expect(422)
    await append(planner, visit.id, 1, [draft('stopped', { reason: 'The site was sold' })])
    const closed = await replan(planner, visit.id, to(world.tester.id)).expect(409)
    expect(codeOf(closed)).toBe('visit-closed')
  })
  it('was asked for: the list says so until the office has answered', async () => {
    const visit = await newVisit()
    const asked = [draft('replan-asked', { why: 'Customer away' })]
    await append(tester, visit.id, 1, asked).expect(200)
    const row = async () =>
      (await planner.get(`/api/v1/visits?on=${day(0)}&limit=200`)).body.items.find(
        (v: { id: string }) => v.id === visit.id,
      )
    expect(await row()).toMatchObject({ replanAsked: 'Customer away', state: 'planned' })
    await replan(planner, visit.id, { plannedOn: day(0), technicianId: world.tester.id })
    expect(await row()).toMatchObject({ replanAsked: null })
  })
})

describe('what a colleague found', () => {
  it('is read by everybody who is signed in, and written by nobody else', async () => {
    const visit = await newVisit()
    await append(tester, visit.id, 1, arrival()).expect(200)
    for (const agent of [other, trainee]) {
      const { body } = await agent.get(`/api/v1/visits/${visit.id}`).expect(200)
      expect(body.events).toHaveLength(4)
    }
    const note = [draft('note', { station: 'as-found', text: 'Mine' })]
    await append(other, visit.id, 4, note).expect(403)
  })
})

describe('what speaks against a plan', () => {
  const doubts = async (query: Record<string, string>) => {
    const asked = new URLSearchParams({
      equipmentId: world.equipment.id,
      technicianId: world.tester.id,
      plannedOn: day(1),
      rulePack: 'larkhaven-relief-first',
      ...query,
    })
    const { body } = await planner.get(`/api/v1/visit-doubts?${asked}`).expect(200)
    return body.items.map((d: { says: string }) => d.says).join(' ')
  }
  it('is a visit that is planned already, but not itself', async () => {
    await app.db.visits.update({ state: 'stopped' }, { where: { state: ['planned', 'under-way'] } })
    expect(await doubts({})).toBe('')
    const visit = await newVisit()
    expect(await doubts({})).toContain('is planned already')
    expect(await doubts({ visit: visit.id })).toBe('')
  })
  it('is a day that has gone, a licence and a calibration that will have', async () => {
    expect(await doubts({ plannedOn: day(-1) })).toContain('lies in the past')
    expect(await doubts({ plannedOn: day(201) })).toContain('BT-tester expires on')
    expect(await doubts({ plannedOn: day(301) })).toContain('No gauge is in calibration')
  })
  it('is a full day', async () => {
    for (let n = 0; n < 8; n++) await newVisit()
    expect(await doubts({ plannedOn: day(0) })).toContain('visits on')
  })
  it('is no licence at all', async () => {
    await app.db.licences.destroy({ where: { personId: world.other.id } })
    expect(await doubts({ technicianId: world.other.id })).toContain('has no licence for this test')
  })
})
