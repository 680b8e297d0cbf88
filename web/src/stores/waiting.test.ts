import 'fake-indexeddb/auto'
import { Job } from '@uvanta/core/testing'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { OneVisitServer, openOnScreen, PERSON, problem } from '@/testing/visitOnScreen'
import { outbox } from './outbox'
import { useSession } from './session'
import { useWaiting } from './waiting'

let server: OneVisitServer
beforeEach(async () => {
  await outbox.forget((await outbox.of(PERSON.id)).map((e) => e.id))
  server = new OneVisitServer(
    new Job({ family: 'reduced-pressure-assembly', kind: 'RP', packId: 'larkhaven-relief-first' }),
  )
})
const texts = () => server.log.flatMap((e) => ('text' in e.payload ? [e.payload.text] : []))
const own = async () => (await outbox.of(PERSON.id)).length

/** Entries that were made without a line, and the place left since. */
async function leftBehind(...notes: string[]) {
  const { store } = await openOnScreen(server)
  server.online = false
  for (const text of notes) store.record('note', { station: 'prepare', text })
  await vi.waitFor(async () => expect(await own()).toBe(notes.length))
  // Another place is open: this visit sends nothing by itself any more.
  store.visit = null
  return useWaiting()
}

describe('entries of a visit that is not open', () => {
  it('wait with their count, and are sent in their order when the line is back', async () => {
    const waiting = await leftBehind('first', 'second')
    await waiting.send()
    expect(waiting.visits).toMatchObject([{ visitId: server.id, count: 2 }])
    expect(waiting.total).toBe(2)
    server.online = true
    await waiting.send()
    expect(texts()).toEqual(['first', 'second'])
    expect(waiting.visits).toEqual([])
    expect(await own()).toBe(0)
    // Sent again they are known, and are not there twice.
    await waiting.send()
    expect(texts()).toEqual(['first', 'second'])
  })
  it('that the server has already are let go of', async () => {
    const waiting = await leftBehind('once')
    const [row] = await outbox.of(PERSON.id)
    if (!row) throw new Error('nothing waits')
    server.write(row.draft, 'Odda Marrin')
    server.online = true
    await waiting.send()
    expect(texts()).toEqual(['once'])
    // It is not even sent.
    expect(server.sendings).toEqual([])
    expect(await own()).toBe(0)
  })
  it('that are refused stay, with the words of the server', async () => {
    const waiting = await leftBehind('too late')
    server.online = true
    server.fails = problem(409, 'rule', 'The visit is closed.', 'Plan another.')
    await waiting.send()
    expect(waiting.visits).toMatchObject([{ count: 1, says: 'The visit is closed. Plan another.' }])
    expect(await own()).toBe(1)
    await waiting.send()
    expect(texts()).toEqual(['too late'])
    expect(waiting.visits).toEqual([])
  })
  it('are sent in pieces that do not overlap', async () => {
    const waiting = await leftBehind(...Array.from({ length: 105 }, (_, n) => `note ${n}`))
    server.online = true
    await waiting.send()
    expect(server.sendings).toEqual([100, 5])
    expect(texts()).toHaveLength(105)
  })
  it('are left to the visit that is open', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    store.record('note', { station: 'prepare', text: 'of the open one' })
    await vi.waitFor(async () => expect(await own()).toBe(1))
    await store.flush()
    server.online = true
    await useWaiting().send()
    expect(server.sendings).toEqual([])
    store.close()
    await useWaiting().send()
    expect(server.sendings).toEqual([1])
  })
  it('are of nobody else’s sending', async () => {
    const waiting = await leftBehind('mine')
    server.online = true
    useSession().person = { ...PERSON, id: 't', name: 'Teo Brack' } as never
    await waiting.send()
    expect(waiting.visits).toEqual([])
    expect(texts()).toEqual([])
    expect(await own()).toBe(1)
  })
})
