import 'fake-indexeddb/auto'
import { type Job, shippedLibrary } from '@uvanta/core/testing'
import type { EventDraft, VisitEvent } from '@uvanta/core/visit'
import { createPinia, setActivePinia } from 'pinia'
import { v7 as uuidv7 } from 'uuid'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'

export const PERSON = {
  id: 'p',
  username: 'odda',
  name: 'Odda Marrin',
  roles: ['technician'],
  licences: ['backflow-tester', 'gas-regulator'].map((kind) => ({
    kind,
    number: `${kind}-1`,
    expiresOn: '2030-01-01',
  })),
}

/** The server as a device sees it: one visit, the library, and a line that can be cut. */
export class OneVisitServer {
  online = true
  readonly id = uuidv7()
  readonly log: VisitEvent[]
  licences = PERSON.licences

  constructor(job: Job) {
    this.log = [...job.events]
  }

  answer = (url: string, init?: RequestInit): Promise<Response> => {
    if (!this.online) return Promise.reject(new TypeError('no line'))
    const body = typeof init?.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined
    const found = this.respond(url, init?.method ?? 'GET', body)
    return Promise.resolve(
      Response.json(found ?? { title: 'Nothing there', status: 404, detail: `No ${url}` }, {
        status: found ? 200 : 404,
      }),
    )
  }

  private respond(url: string, method: string, body: unknown): object | null {
    if (url === '/api/v1/session')
      return { person: { ...PERSON, licences: this.licences }, today: '2026-06-01' }
    if (url === '/api/v1/library') return shippedLibrary
    if (url.startsWith('/api/v1/gauges')) return { items: [], next: null }
    if (url === `/api/v1/visits/${this.id}` && method === 'GET') return this.visit()
    if (url === `/api/v1/visits/${this.id}/events` && method === 'POST')
      return { items: this.take((body as { events: EventDraft[] }).events) }
    return null
  }

  private visit() {
    const events = this.log.map((e, n) => ({ ...e, seq: n + 1, serverTime: '', hash: '' }))
    return { id: this.id, technicianId: PERSON.id, events }
  }

  private take(drafts: readonly EventDraft[]) {
    // What is known already is taken once, as the real server does.
    for (const d of drafts.filter((n) => !this.log.some((e) => e.id === n.id)))
      this.log.push({ ...d, personId: PERSON.id, personName: PERSON.name } as VisitEvent)
    return this.visit().events.filter((e) => drafts.some((d) => d.id === e.id))
  }
}

/** Opens the server’s visit in fresh stores of the application, as after a reload. */
export async function openOnScreen(server: OneVisitServer) {
  globalThis.fetch = server.answer as typeof fetch
  const pinia = createPinia()
  setActivePinia(pinia)
  await Promise.all([useSession().load(), useLibrary().load()])
  const store = useVisit()
  await store.open(server.id)
  return { store, pinia }
}
