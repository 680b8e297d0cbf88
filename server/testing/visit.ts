import type { Person, Visit } from '@uvanta/contract'
import { testPlanOf } from '@uvanta/core/library'
import {
  draftOf,
  type EventDraft,
  type EventKind,
  gaugeAsInstrument,
  type PayloadOf,
  type RunName,
} from '@uvanta/core/visit'
import { addDays } from '@uvanta/core/calendar'
import { v7 as uuidv7 } from 'uuid'
import type { App } from '../context'
import { readPerson } from '../service/people/people'
import { planVisit } from '../service/visit/visits'
import type { Agent } from './app'
import { SMALLEST_PNG } from './picture'

export const SIGNATURE = 'M 10 60 L 200 40 L 380 70'

export const draft = <K extends EventKind>(kind: K, payload: PayloadOf<K>) =>
  draftOf(kind, payload, {
    id: uuidv7(),
    deviceTime: new Date().toISOString(),
    deviceOffset: 0,
  }) as EventDraft<K>

/** A visit as it was planned before any pack had a test for its kind. */
function planUntested(app: App, equipmentId: string, technician: Person): Promise<Visit> {
  const library = { ...app.shelf.library, rulePacks: [] }
  return planVisit(
    { ...app, shelf: { ...app.shelf, library } as unknown as App['shelf'] },
    technician,
    {
      id: uuidv7(),
      equipmentId,
      technicianId: technician.id,
      plannedOn: app.today(),
      purpose: 'periodic-test',
    },
  )
}

export async function plan(
  app: App,
  agent: Agent,
  equipmentId: string,
  technicianId: string,
  rulePack: string | null = 'larkhaven-relief-first',
): Promise<Visit> {
  if (!rulePack) return planUntested(app, equipmentId, await readPerson(app, technicianId))
  const response = await agent
    .post('/api/v1/visits')
    .send({
      id: uuidv7(),
      equipmentId,
      technicianId,
      plannedOn: app.today(),
      purpose: 'periodic-test',
      rulePack,
    })
    .expect(200)
  return response.body as Visit
}

export const arrival = () => [
  draft('station-done', { station: 'prepare' }),
  draft('identity', { outcome: 'confirmed' }),
  draft('station-done', { station: 'arrive' }),
]

/** A relief-first test from its start to its end, as a gauge and licence of the register allow it. */
export function testOf(
  app: App,
  gaugeId: string,
  run: RunName,
  check1: string,
  licence = 'BT-tester',
) {
  const today = app.today()
  const { procedure } = testPlanOf(app.shelf.library, 'larkhaven-relief-first', 'RP')
  const reading = (item: string, value: string) =>
    draft('reading', { run, item, dimension: 'differential', value, unit: 'psi', source: 'typed' })
  const answer = (item: string, id: string, label: string) =>
    draft('answer', { run, item, answer: id, label })
  return [
    draft('test-started', {
      run,
      procedureId: procedure.id,
      procedureVersion: procedure.version,
      instruments: [
        gaugeAsInstrument({
          id: gaugeId,
          tag: 'G-01',
          serial: 'DG-1',
          accuracyPercent: 0.25,
          accuracyOf: 'span',
          span: 15,
          spanUnit: 'psi',
          calibratedOn: addDays(today, -30),
          calibrationUntil: addDays(today, 300),
          calibrationCertificate: 'CAL-1',
        }),
      ],
      licence: { kind: 'backflow-tester', number: licence, expiresOn: addDays(today, 200) },
    }),
    answer('shutoff-2', 'tight', 'Tight – the reading came to rest'),
    reading('relief-opening', '2.4'),
    answer('relief-at-rest', 'dry', 'Dry'),
    answer('check-2', 'held', 'Held tight'),
    reading('check-1', check1),
    draft('test-finished', { run }),
  ]
}

export const skipToReturn = () => [
  draft('station-done', { station: 'as-found', skipTo: 'return' }),
  draft('station-done', { station: 'return' }),
]

export const append = (
  agent: Agent,
  visitId: string,
  expected: number,
  events: readonly object[],
) => agent.post(`/api/v1/visits/${visitId}/events`).send({ expected, events })

/** A visit from plan to signature; answers the visit as signed. */
export async function signedVisit(
  app: App,
  agent: Agent,
  ids: { equipmentId: string; technicianId: string; gaugeId: string },
  password: string,
  { photo }: { photo?: string } = {},
) {
  const visit = await plan(app, agent, ids.equipmentId, ids.technicianId)
  if (photo)
    await agent
      .put(`/api/v1/visits/${visit.id}/photos/${photo}`)
      .set('Content-Type', 'image/png')
      .send(SMALLEST_PNG)
      .expect(204)
  const events = [...arrival(), ...testOf(app, ids.gaugeId, 'as-found', '7.1'), ...skipToReturn()]
  await append(agent, visit.id, 1, events).expect(200)
  const event = draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' })
  const response = await agent
    .post(`/api/v1/visits/${visit.id}/sign`)
    .send({ expected: 1 + events.length, password, event })
    .expect(200)
  return response.body as Visit
}
