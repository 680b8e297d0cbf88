import { randomUUID } from 'node:crypto'
import { type APIRequestContext, expect } from '@playwright/test'

/** Plans a visit of the person signed in, for one test alone. @returns its id */
export async function planVisit(api: APIRequestContext, origin: string, tag: string) {
  const ask = async (path: string) => (await api.get(`${origin}/api/v1/${path}`)).json()
  const { person, today } = await ask('session')
  const [equipment] = (await ask(`equipment?q=${tag}`)).items
  const id = randomUUID()
  const planned = await api.post(`${origin}/api/v1/visits`, {
    data: {
      id,
      equipmentId: equipment.id,
      technicianId: person.id,
      plannedOn: today,
      purpose: 'periodic-test',
      rulePack: 'larkhaven-relief-first',
    },
  })
  expect(planned.status()).toBe(200)
  return id
}

/** The entries of a visit that the server has. */
export async function eventsOf(api: APIRequestContext, origin: string, id: string) {
  const { events } = (await (await api.get(`${origin}/api/v1/visits/${id}`)).json()) as {
    events: { kind: string; payload: { text?: string } }[]
  }
  return events
}
