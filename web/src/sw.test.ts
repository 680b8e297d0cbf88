import 'fake-indexeddb/auto'
import { Job } from '@uvanta/core/testing'
import type { EventDraft } from '@uvanta/core/visit'
import { v7 as uuidv7 } from 'uuid'
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { keptAnswers } from '@/api/kept'
import { outbox } from '@/stores/outbox'
import { OneVisitServer, PERSON, problem } from '@/testing/visitOnScreen'

// What keeps the application on the device is the browser’s; sending is ours.
vi.mock('workbox-precaching', () => ({
  precacheAndRoute: vi.fn(),
  cleanupOutdatedCaches: vi.fn(),
  createHandlerBoundToURL: vi.fn(),
}))
vi.mock('workbox-routing', () => ({ registerRoute: vi.fn(), NavigationRoute: class {} }))

const matchAll = vi.fn<() => Promise<{ visibilityState: string }[]>>()
const skipWaiting = vi.fn()
/** Both visits of the person who is signed in. */
let servers: [OneVisitServer, OneVisitServer]

beforeAll(async () => {
  Object.assign(self, { clients: { matchAll }, skipWaiting, __WB_MANIFEST: [] })
  await import('./sw')
})
beforeEach(async () => {
  matchAll.mockResolvedValue([])
  const rows = [...(await outbox.of(PERSON.id)), ...(await outbox.of('t'))]
  await outbox.forget(rows.map((e) => e.id))
  const visit = () =>
    new OneVisitServer(
      new Job({
        family: 'reduced-pressure-assembly',
        kind: 'RP',
        packId: 'larkhaven-relief-first',
      }),
    )
  servers = [visit(), visit()]
  globalThis.fetch = ((url: string, init?: RequestInit) =>
    (servers.find((s) => url.includes(s.id)) ?? servers[0]).answer(url, init)) as typeof fetch
})
afterEach(() => skipWaiting.mockReset())

const textsOf = (server: OneVisitServer) =>
  server.log.flatMap((e) => ('text' in e.payload ? [e.payload.text] : []))
const waits = async (personId = PERSON.id) => (await outbox.of(personId)).length
async function leave(server: OneVisitServer, text: string, personId = PERSON.id) {
  const draft: EventDraft = {
    id: uuidv7(),
    kind: 'note',
    payload: { station: 'prepare', text },
    deviceTime: '2026-06-01T08:05:00.000Z',
    deviceOffset: 0,
  }
  await outbox.keep([{ id: draft.id, visitId: server.id, personId, personName: 'whoever', draft }])
}
/** Wakes what works behind the pages, as the browser does when the line is back. */
async function wake(tag = 'uvanta-entries'): Promise<void> {
  let work: Promise<void> | undefined
  const waitUntil = (of: Promise<void>) => (work = of)
  self.dispatchEvent(Object.assign(new Event('sync'), { tag, waitUntil }))
  await work
}

describe('behind the pages', () => {
  it('each entry is sent to its own visit, and then let go of', async () => {
    const [one, other] = servers
    await leave(one, 'first')
    await leave(other, 'of another visit')
    await leave(one, 'second')
    await wake()
    expect(textsOf(one)).toEqual(['first', 'second'])
    expect(textsOf(other)).toEqual(['of another visit'])
    expect([one.sendings, other.sendings]).toEqual([[2], [1]])
    expect(await waits()).toBe(0)
  })
  it('nothing is sent while a page is in sight, which says what is refused; a hidden page does not', async () => {
    await leave(servers[0], 'in sight')
    matchAll.mockResolvedValue([{ visibilityState: 'hidden' }, { visibilityState: 'visible' }])
    await wake()
    expect(servers[0].sendings).toEqual([])
    expect(await waits()).toBe(1)
    matchAll.mockResolvedValue([{ visibilityState: 'hidden' }])
    await wake()
    expect(textsOf(servers[0])).toEqual(['in sight'])
  })
  it('nothing is sent for whoever is not signed in', async () => {
    await leave(servers[0], 'of Teo', 't')
    await wake()
    expect(servers[0].sendings).toEqual([])
    expect(await waits('t')).toBe(1)
    const { answer } = servers[0]
    servers[0].answer = (url, init) =>
      url === '/api/v1/session'
        ? Promise.resolve(Response.json({ person: null }))
        : answer(url, init)
    await leave(servers[0], 'of nobody')
    await wake()
    expect(servers[0].sendings).toEqual([])
  })
  it('what is refused stays, and does not hold back another visit', async () => {
    const [one, other] = servers
    await leave(one, 'refused')
    await leave(other, 'taken')
    one.fails = problem(409, 'rule', 'The visit is closed.', 'Plan another.')
    await wake()
    expect(textsOf(other)).toEqual(['taken'])
    expect((await outbox.of(PERSON.id)).map((e) => e.visitId)).toEqual([one.id])
  })
  it('the browser is told to try again where there is no line', async () => {
    await leave(servers[0], 'no line')
    servers[0].online = false
    await expect(wake()).rejects.toThrow()
    expect(await waits()).toBe(1)
  })
  it('another wake is not for it', async () => {
    await leave(servers[0], 'waits')
    await wake('something-else')
    expect(servers[0].sendings).toEqual([])
  })
  it('answers that are kept are those of whoever is signed in', async () => {
    const belongTo = vi.spyOn(keptAnswers, 'belongTo')
    await wake()
    expect(belongTo).toHaveBeenCalledWith(PERSON.id)
  })
  it('a new version takes over when it is told to, and not before', () => {
    self.dispatchEvent(new MessageEvent('message', { data: { type: 'OTHER' } }))
    expect(skipWaiting).not.toHaveBeenCalled()
    self.dispatchEvent(new MessageEvent('message', { data: { type: 'SKIP_WAITING' } }))
    expect(skipWaiting).toHaveBeenCalledOnce()
  })
})
