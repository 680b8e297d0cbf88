import type { Equipment } from '@uvanta/contract'
import { addDays } from '@uvanta/core/calendar'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn, codeOf } from './testing/app'
import { append, draft, signedVisit } from './testing/visit'

/** Equipment that was taken out and is not there any more, for the lists and for who plans. */
let app: App
let planner: Agent
let tester: Agent
let world: Awaited<ReturnType<typeof populate>>
let signed: Awaited<ReturnType<typeof signedVisit>>
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  const server = serve(app)
  planner = await signedIn(server, 'planner')
  tester = await signedIn(server, 'tester')
  const ids = {
    equipmentId: world.equipment.id,
    technicianId: world.tester.id,
    gaugeId: world.gaugeId,
  }
  signed = await signedVisit(app, tester, ids, PASSWORD)
})
const path = () => `/api/v1/equipment/${world.equipment.id}`
const now = async () => (await planner.get(path()).expect(200)).body as Equipment
const change = async (inService: boolean, why = 'The kiosk was pulled down', version?: number) =>
  planner
    .post(`${path()}/service`)
    .set('If-Match', `"${version ?? (await now()).version}"`)
    .send({ inService, why })
const plan = () =>
  planner.post('/api/v1/visits').send({
    id: uuidv7(),
    equipmentId: world.equipment.id,
    technicianId: world.tester.id,
    plannedOn: app.today(),
    purpose: 'periodic-test',
    rulePack: 'larkhaven-relief-first',
  })
const listed = async (query: string) =>
  ((await planner.get(`/api/v1/equipment?${query}`).expect(200)).body.items as Equipment[]).map(
    (e) => e.id,
  )

describe('equipment', () => {
  it('is not taken out while somebody is to go there', async () => {
    const visit = (await plan().expect(200)).body as { id: string; count: number }
    const refused = await change(false)
    expect([refused.status, codeOf(refused)]).toEqual([409, 'visit-open'])
    expect((await now()).condition).toBe('in-order')
    await append(planner, visit.id, visit.count, [
      draft('stopped', { reason: 'Pulled down' }),
    ]).expect(200)
  })
  it('out of service falls due with nothing, is not planned, and is still to be read', async () => {
    const seen = await now()
    expect((await change(false, '')).status).toBe(422)
    expect((await change(false)).body).toMatchObject({
      condition: 'out-of-service',
      dueOn: null,
      repairBy: null,
    })
    expect(codeOf(await change(false))).toBe('service-unchanged')
    expect((await change(true, 'Too late', seen.version)).status).toBe(412)
    expect(await listed('condition=out-of-service')).toEqual([world.equipment.id])
    expect(await listed('due=overdue')).not.toContain(world.equipment.id)
    const planned = await plan()
    expect([planned.status, codeOf(planned)]).toEqual([409, 'out-of-service'])
    const due = await planner
      .patch(path())
      .set('If-Match', `"${(await now()).version}"`)
      .send({ dueOn: addDays(app.today(), 9) })
    expect(due.status).toBe(409)
    expect((await planner.get(`${path()}/history`).expect(200)).body.items).not.toEqual([])
  })
  it('is not planned in the very moment in which it is taken out', async () => {
    expect((await change(true)).status).toBe(200)
    const taking = await app.db.sequelize.transaction()
    const { id, version } = await now()
    await app.db.equipment.update(
      { version: version + 1 },
      { where: { id, version }, transaction: taking },
    )
    await app.db.equipmentStatus.update(
      { condition: 'out-of-service', dueOn: null },
      { where: { equipmentId: id }, transaction: taking },
    )
    const planned = plan().then((answer) => answer)
    await new Promise((passed) => setTimeout(passed, 300))
    await taking.commit()
    const refused = await planned
    expect([refused.status, codeOf(refused)]).toEqual([409, 'out-of-service'])
  })
  it('is not put back by a correction of what was found before', async () => {
    const reading = signed.events.find((e) => e.kind === 'reading')
    const event = draft('correction', {
      of: reading?.id ?? '',
      why: 'Digits exchanged',
      withdraw: false,
      payload: { ...reading?.payload, value: '7.0' },
    })
    await tester
      .post(`/api/v1/visits/${signed.id}/correct`)
      .send({ expected: signed.count, password: PASSWORD, event })
      .expect(200)
    expect(await now()).toMatchObject({ condition: 'out-of-service', dueOn: null })
  })
  it('put back into service is due at once, and nobody says how it stands', async () => {
    expect((await change(true, 'The kiosk stands again')).body).toMatchObject({
      condition: 'not-assessed',
      dueOn: app.today(),
    })
    await plan().expect(200)
    const { body } = await planner.get('/api/v1/equipment?condition=out-of-service').expect(200)
    expect(body.items).toEqual([])
    const actions = (await app.db.audit.findAll({ order: [['id', 'ASC']] })).map((a) => a.action)
    expect(actions).toEqual(
      expect.arrayContaining([
        'took out of service: The kiosk was pulled down',
        'put back into service: The kiosk stands again',
      ]),
    )
  })
})
