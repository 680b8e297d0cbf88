import 'fake-indexeddb/auto'
import { type Job, shippedLibrary } from '@uvanta/core/testing'
import { appended, decide, emptyLog, type EventDraft, type VisitEvent } from '@uvanta/core/visit'
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
  licences: ['backflow-tester', 'backflow-tester-check-first', 'gas-regulator'].map((kind) => ({
    kind,
    number: `${kind}-1`,
    expiresOn: '2030-01-01',
  })),
}

/** Problem details, as the real server sends them. */
export const problem = (status: number, code: string, why: string, remedy: string) => ({
  type: `urn:uvanta:problem:${code}`,
  status,
  detail: `${why} ${remedy}`,
  why,
  remedy,
})

export const PASSWORD = 'larkhaven-password'

/** The gauge in the technician’s hand. */
export const GAUGE = {
  id: '018f0000-0000-7000-8000-000000900777',
  tag: 'G-1',
  serial: 'S-1',
  maker: 'Maker B',
  span: '15',
  spanUnit: 'psi',
  resolution: '0.1',
  accuracyPercent: 0.25,
  accuracyOf: 'span',
  active: true,
  version: 1,
  calibrations: [
    { id: 'c', calibratedOn: '2026-01-01', validUntil: '2026-12-31', certificate: 'CAL-1' },
  ],
}

/** A server’s answer that is no success. */
interface Problem {
  readonly status: number
  readonly detail: string
  readonly [more: string]: unknown
}

/** The server as a device sees it: one visit, the library, the guards, and a line that can be cut. */
export class OneVisitServer {
  online = true
  /** Where a simulated gauge waits, if one does. */
  gaugeUrl: string | null = null
  readonly id = uuidv7()
  readonly log: VisitEvent[]
  licences = PERSON.licences
  /** Who is signed in. */
  person: Pick<typeof PERSON, 'id' | 'name'> = PERSON
  /** Where something was asked for, in order. */
  readonly asked: string[] = []
  /** How many entries came in each sending. */
  readonly sendings: number[] = []
  /** What the next sending is answered with, once. */
  fails: Problem | null = null

  constructor(job: Job) {
    this.log = [...job.events]
  }

  answer = (url: string, init?: RequestInit): Promise<Response> => {
    if (!this.online) return Promise.reject(new TypeError('no line'))
    this.asked.push(url)
    const body = typeof init?.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined
    const found =
      this.respond(url, init?.method ?? 'GET', body) ??
      problem(404, 'not-found', `There is no ${url}.`, 'Look elsewhere.')
    const { status = 200 } = found as { status?: number }
    return Promise.resolve(Response.json(found, { status }))
  }

  /** Somebody else writes to the visit. */
  write(event: EventDraft, personName: string): void {
    this.log.push({ ...event, personId: 'other', personName } as VisitEvent)
  }

  private respond(url: string, method: string, body: unknown): object | null {
    if (url === '/api/v1/session')
      return {
        person: { ...PERSON, ...this.person, licences: this.licences },
        today: '2026-06-01',
        units: { gaugePressure: 'psi', differential: 'psi' },
        utility: 'Larkhaven Gas & Water',
      }
    if (url === '/api/v1/library') return shippedLibrary
    if (url === '/api/v1/library/earlier') return shippedLibrary.earlier
    if (url.startsWith('/api/v1/gauges')) return { items: [GAUGE], next: null }
    if (url === '/api/v1/gauge-link') return { url: this.gaugeUrl }
    if (url === `/api/v1/visits/${this.id}` && method === 'GET') return this.visit()
    if (url === `/api/v1/visits/${this.id}/events` && method === 'POST')
      return this.take(body as { expected: number; as: string; events: EventDraft[] })
    if (url === `/api/v1/visits/${this.id}/correct`)
      return this.correct(body as { password: string; event: EventDraft })
    return null
  }

  private visit() {
    const events = this.log.map((e, n) => ({ ...e, seq: n + 1, serverTime: '', hash: '' }))
    const { plan } = appended(emptyLog, this.log).state
    return { id: this.id, technicianId: PERSON.id, equipment: plan?.equipment, events }
  }

  private correct({ password, event }: { password: string; event: EventDraft }): object {
    if (password !== PASSWORD)
      return problem(403, 'refused', 'That is not your password.', 'Type it again.')
    this.write(event, this.person.name)
    return this.visit()
  }

  /** All or nothing, in order, harmless when sent twice; what a guard refuses is refused. */
  private take({
    expected,
    as,
    events: drafts,
  }: {
    expected: number
    as: string
    events: EventDraft[]
  }): object {
    this.sendings.push(drafts.length)
    if (as !== this.person.id)
      return problem(409, 'another-person', 'Made by another person.', 'Sign in as that person.')
    const failure = this.fails
    this.fails = null
    if (failure) return failure
    const newer = this.visit().events.slice(expected)
    if (newer.some((e) => !drafts.some((d) => d.id === e.id)))
      return { ...problem(409, 'newer-events', 'Someone wrote.', 'Read it again.'), events: newer }
    // What is known already is taken once, as the real server does.
    const fresh = drafts.filter((n) => !this.log.some((e) => e.id === n.id))
    const person = { roles: PERSON.roles, licences: this.licences }
    const by = { personId: this.person.id, personName: this.person.name }
    const decision = decide(appended(emptyLog, this.log), fresh, by, () => ({
      library: shippedLibrary,
      person,
    }))
    if ('refusal' in decision) {
      const { refusal, of } = decision
      return { ...problem(409, 'refused', refusal.why, refusal.remedy), event: of.id }
    }
    this.log.push(...decision.events)
    return { items: this.visit().events.filter((e) => drafts.some((d) => d.id === e.id)) }
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
