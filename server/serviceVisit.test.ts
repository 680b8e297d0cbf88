import { addDays } from '@uvanta/core/calendar'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { createEquipment } from './service/register/equipment'
import {
  type Agent,
  equipmentInput,
  makeTestApp,
  PASSWORD,
  populate,
  serve,
  signedIn,
  codeOf,
} from './testing/app'
import { append, draft, plan, SIGNATURE } from './testing/visit'

let app: App
let world: Awaited<ReturnType<typeof populate>>
let tester: Agent
let actuatorId: string
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  tester = await signedIn(serve(app), 'tester')
  const actuator = await createEquipment(app, world.tester, {
    ...equipmentInput(world.site.id, 'SCA-1', addDays(app.today(), 9)),
    family: 'spring-cylinder-actuator',
    kind: 'actuator',
    service: 'air',
    programme: 'overhaul-three-years',
    specSheet: app.shelf.library.specSheets.find((s) => s.family === 'spring-cylinder-actuator')
      ?.id,
  })
  actuatorId = actuator.id
})

const PACK = 'larkhaven-valves-and-actuators'
const planned = (equipmentId: string, rulePack?: string) =>
  tester.post('/api/v1/visits').send({
    id: uuidv7(),
    equipmentId,
    technicianId: world.tester.id,
    plannedOn: app.today(),
    purpose: 'fail-action-change',
    ...(rulePack ? { rulePack } : {}),
  })
const arrived = () => [
  draft('station-done', { station: 'prepare' }),
  draft('identity', { outcome: 'confirmed' }),
  draft('station-done', { station: 'arrive' }),
]
const works = draft('checked', {
  run: 'as-found',
  outcome: 'works',
  text: 'Strokes both ways',
  readings: [
    { title: 'First movement', reading: { dimension: 'gaugePressure', value: '3.2', unit: 'psi' } },
  ],
})

describe('planning', () => {
  it('wants a rule pack that has a test for the kind', async () => {
    const bare = await planned(world.equipment.id).expect(422)
    expect(codeOf(bare)).toBe('invalid')
    await planned(actuatorId).expect(422)
    await planned(actuatorId, PACK).expect(200)
    const odd = await planned(actuatorId, 'larkhaven-relief-first').expect(422)
    expect(codeOf(odd)).toBe('not-in-library')
  })
  it('takes the spec sheet of the register along', async () => {
    const { body } = await planned(actuatorId, PACK).expect(200)
    expect(body.equipment.specSheet).toMatch(/spring-cylinder-actuator/)
  })
})

describe('a visit without a field test', () => {
  it('goes from function check to a signed service report, which verifies', async () => {
    const visit = await plan(app, tester, actuatorId, world.tester.id, null)
    const events = [
      ...arrived(),
      works,
      draft('station-done', { station: 'as-found', skipTo: 'return' }),
      draft('station-done', { station: 'return' }),
    ]
    await append(tester, visit.id, 1, events).expect(200)
    const sign = (outcome: 'pass' | 'fail') =>
      tester.post(`/api/v1/visits/${visit.id}/sign`).send({
        expected: 1 + events.length,
        password: PASSWORD,
        event: draft('signed', { signature: SIGNATURE, name: 'The tester', outcome }),
      })
    const wrong = await sign('fail').expect(409)
    expect(codeOf(wrong)).toBe('outcome-differs')
    const signed = await sign('pass').expect(200)
    expect(signed.body).toMatchObject({ state: 'signed', outcome: 'pass' })
    const { certificateId } = signed.body
    const { body } = await tester.get(`/api/v1/certificates/${certificateId}`).expect(200)
    expect(body.payload).toMatchObject({
      document: 'service-report',
      authority: '',
      asFound: {
        checked: 'works',
        text: 'Strokes both ways',
        readings: [{ title: 'First movement', value: '3.2 psi' }],
      },
      asLeft: null,
      tester: { name: 'The tester' },
    })
    expect(body.payload.statement).toMatch(/no test certificate/)
    const seen = await tester.get(`/api/v1${body.verifyPath}`).expect(200)
    expect(seen.body.verdict).toBe('genuine')
    const pdf = await tester.get(`/api/v1/certificates/${certificateId}/pdf`).buffer(true)
    expect(pdf.body.subarray(0, 5).toString()).toBe('%PDF-')
  })
  it('takes no field test, and a reading only with a unit of its kind', async () => {
    const visit = await plan(app, tester, actuatorId, world.tester.id, null)
    await append(tester, visit.id, 1, arrived()).expect(200)
    const odd = draft('checked', {
      ...works.payload,
      readings: [
        { title: 'Travel', reading: { dimension: 'length', value: '30', unit: 'psi' as never } },
      ],
    })
    const refused = await append(tester, visit.id, 4, [odd]).expect(422)
    expect(codeOf(refused)).toBe('invalid-input')
  })
  it('leaves equipment that does not work as failed, to be repaired in time', async () => {
    const visit = await plan(app, tester, actuatorId, world.tester.id, null)
    const broken = draft('checked', { ...works.payload, outcome: 'works-not', text: 'Stuck' })
    await append(tester, visit.id, 1, [...arrived(), broken]).expect(200)
    const { body } = await tester.get(`/api/v1/equipment/${actuatorId}`).expect(200)
    expect(body.condition).toBe('failed')
    expect(body.repairBy > app.today()).toBe(true)
  })
})

describe('what the house knows, over the interface', () => {
  it('has sheets, policies and the state of its files', async () => {
    const { body } = await tester.get('/api/v1/library').expect(200)
    expect(body.specSheets.length).toBeGreaterThan(20)
    expect(body.policies.length).toBe(body.families.length)
    const state = await tester.get('/api/v1/library/state').expect(200)
    expect(state.body.faults).toEqual([])
  })
  it('plans making safe for whoever asks', async () => {
    const answer = await tester
      .post('/api/v1/compute/plan-isolation')
      .send({ kind: 'DC', guide: 'tower-double-check' })
      .expect(200)
    expect(answer.body.moves[0]).toMatchObject({ kind: 'shut', valve: 'shutoff-2', speed: 'slow' })
  })
})
