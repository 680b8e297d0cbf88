import 'fake-indexeddb/auto'
import { Job, shippedLibrary } from '@uvanta/core/testing'
import { type EventDraft, planOfVisit } from '@uvanta/core/visit'
import { createPinia, setActivePinia } from 'pinia'
import { v7 as uuidv7 } from 'uuid'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { watch } from 'vue'
import { OneVisitServer, openOnScreen, PERSON, problem } from '@/testing/visitOnScreen'
import { useLibrary } from './library'
import { outbox } from './outbox'
import { useSession } from './session'
import { useVisit } from './visit'

let server: OneVisitServer
beforeEach(() => {
  server = new OneVisitServer(
    new Job({ family: 'reduced-pressure-assembly', kind: 'RP', packId: 'larkhaven-relief-first' }),
  )
})
const TEO = { id: 't', name: 'Teo Brack' }
const note = (text: string) => ({ station: 'prepare', text }) as const
const texts = () => server.log.flatMap((e) => ('text' in e.payload ? [e.payload.text] : []))
const kept = async () =>
  (await outbox.read(server.id)).map((e) => (e.draft.payload as { text?: string }).text)
const settled = (store: ReturnType<typeof useVisit>) =>
  vi.waitFor(() => expect(store.pending).toHaveLength(0))
/** Waits without a timer, which the test may have taken over. */
async function until(holds: () => boolean) {
  for (let n = 0; n < 2_000 && !holds(); n++) await new Promise((r) => setImmediate(r))
}
const theirs = (text: string): EventDraft => ({
  id: uuidv7(),
  kind: 'note',
  payload: note(text),
  deviceTime: '2026-06-01T08:05:00.000Z',
  deviceOffset: 0,
})

describe('an entry', () => {
  it('is on the device when it is pressed, and off it when the server has it', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    store.record('note', note('in the pit'))
    await vi.waitFor(async () => expect(await kept()).toEqual(['in the pit']))
    expect(store.sendProblem).toMatch(/no connection/i)
    server.online = true
    await store.flush()
    expect(texts()).toContain('in the pit')
    await vi.waitFor(async () => expect(await kept()).toEqual([]))
    expect(store.sendProblem).toBe('')
  })
  it('is handed to the disk before it is seen, as a whole and for good', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    const order: string[] = []
    watch(
      () => store.pending.length,
      () => order.push('shown'),
      { flush: 'post' },
    )
    const put = vi.spyOn(IDBObjectStore.prototype, 'put')
    const commit = vi.spyOn(IDBTransaction.prototype, 'commit')
    put.mockImplementationOnce(function (this: IDBObjectStore, ...given) {
      order.push(`put, ${this.transaction.durability}`)
      return this.put(...given)
    })
    commit.mockImplementationOnce(function (this: IDBTransaction) {
      order.push('committed')
      this.commit()
    })
    store.record('note', note('the battery dies now'))
    await vi.waitFor(async () => expect(await kept()).toEqual(['the battery dies now']))
    expect(order).toEqual(['put, strict', 'committed', 'shown'])
    vi.restoreAllMocks()
  })
  it('and all others of its press are recorded, or none of them is', async () => {
    const { store } = await openOnScreen(server)
    const refused = store.recordAll([
      ['note', note('one')],
      ['station-done', { station: 'prepare' }],
      ['station-done', { station: 'as-found' }],
    ])
    expect(refused?.why).toMatch(/comes after Arrive/)
    expect(store.pending).toEqual([])
    expect(store.state.done).toEqual([])
    store.recordAll([
      ['note', note('one')],
      ['station-done', { station: 'prepare' }],
      ['identity', { outcome: 'confirmed' }],
    ])
    await settled(store)
    expect(server.sendings).toEqual([3])
    expect(store.state.done).toEqual(['prepare'])
  })
  it('is there again after a reload, and sent then', async () => {
    const first = await openOnScreen(server)
    server.online = false
    first.store.record('note', note('before the battery died'))
    await vi.waitFor(async () => expect(await kept()).toHaveLength(1))
    server.online = true
    const { store } = await openOnScreen(server)
    await settled(store)
    expect(texts()).toEqual(['before the battery died'])
  })
  it('is in sight also where it is sent behind the page while that opens', async () => {
    const first = await openOnScreen(server)
    server.online = false
    first.store.record('note', note('sent behind the page'))
    await vi.waitFor(async () => expect(await kept()).toHaveLength(1))
    await vi.waitFor(() => expect(first.store.sendProblem).not.toBe(''))
    const [row] = await outbox.read(server.id)
    const { answer } = server
    let opening = true
    server.answer = async (url, init) => {
      // Nobody else gets through before it.
      if (opening && url.endsWith('/events')) throw new TypeError('no line')
      const before = await answer(url, init)
      if (opening && url.endsWith(`/visits/${server.id}`)) {
        opening = false
        const body = { expected: server.log.length, as: PERSON.id, events: [row?.draft] }
        await answer(`${url}/events`, { method: 'POST', body: JSON.stringify(body) })
        await outbox.forget([row?.draft.id ?? ''])
      }
      return before
    }
    server.online = true
    const { store } = await openOnScreen(server)
    const seen = store.events.map((e) => ('text' in e.payload ? e.payload.text : ''))
    expect(seen).toContain('sent behind the page')
    await settled(store)
    expect(texts()).toEqual(['sent behind the page'])
  })
  it('whose answer was lost is not written twice', async () => {
    const { store } = await openOnScreen(server)
    const answer = server.answer
    globalThis.fetch = (async (url: string, init?: RequestInit) => {
      await answer(url, init)
      throw new TypeError('line lost after the request')
    }) as typeof fetch
    store.record('note', note('once'))
    await vi.waitFor(() => expect(store.sendProblem).not.toBe(''))
    globalThis.fetch = answer as typeof fetch
    await store.flush()
    await settled(store)
    expect(texts()).toEqual(['once'])
  })
})

describe('two tabs of one visit', () => {
  it('keep what each of them recorded', async () => {
    const a = await openOnScreen(server)
    const b = await openOnScreen(server)
    server.online = false
    a.store.record('note', note('from tab A'))
    b.store.record('note', note('from tab B'))
    await vi.waitFor(async () =>
      expect((await kept()).sort()).toEqual(['from tab A', 'from tab B']),
    )
    server.online = true
    const later = await openOnScreen(server)
    await settled(later.store)
    expect(texts().sort()).toEqual(['from tab A', 'from tab B'])
  })
})

describe('a device that cannot keep an entry', () => {
  it('says so at once, and sends it all the same', async () => {
    const { store } = await openOnScreen(server)
    const full = vi
      .spyOn(outbox, 'keep')
      .mockRejectedValue(new DOMException('', 'QuotaExceededError'))
    server.online = false
    expect(store.record('note', note('no room'))).toBeNull()
    await vi.waitFor(() => expect(store.deviceProblem).toMatch(/could not keep/))
    expect(store.pending).toHaveLength(1)
    server.online = true
    await store.flush()
    expect(texts()).toEqual(['no room'])
    full.mockRestore()
    store.record('note', note('room again'))
    await vi.waitFor(() => expect(store.deviceProblem).toBe(''))
  })
})

describe('a shared tablet', () => {
  const leftByOdda = async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    store.record('note', note('Odda’s own'))
    await vi.waitFor(async () => expect(await kept()).toHaveLength(1))
    server.online = true
  }
  it('sends nothing of one person under the name of another, and shows that it waits', async () => {
    await leftByOdda()
    server.person = TEO
    const { store } = await openOnScreen(server)
    await store.flush()
    expect(store.pending).toEqual([])
    expect(store.others).toEqual({ 'Odda Marrin': 1 })
    expect(texts()).toEqual([])
    expect(await kept()).toEqual(['Odda’s own'])
    server.person = PERSON
    const again = await openOnScreen(server)
    await settled(again.store)
    expect(server.log.at(-1)).toMatchObject({ personName: 'Odda Marrin' })
  })
  it('stops sending at the moment somebody else signs in', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    store.record('note', note('Odda’s own'))
    await vi.waitFor(async () => expect(await kept()).toHaveLength(1))
    server.online = true
    server.person = TEO
    await useSession().load()
    await store.flush()
    expect(store.visit).toBeNull()
    expect(texts()).toEqual([])
  })
  it('asks nobody else to withdraw it', async () => {
    await leftByOdda()
    server.person = TEO
    const { store } = await openOnScreen(server)
    await store.withdrawRefused('x')
    await store.resolveConflict(false)
    expect(await kept()).toEqual(['Odda’s own'])
  })
})

describe('the know-how of earlier versions', () => {
  it('is fetched for a visit that rests on it before that is shown, and for no other', async () => {
    const { answer } = server
    await openOnScreen(server)
    expect(server.asked).not.toContain('/api/v1/library/earlier')
    // Since the visit was planned a newer version of its rule pack came into force.
    const rulePacks = shippedLibrary.rulePacks.map((p) => ({ ...p, version: p.version + 1 }))
    const { earlier } = shippedLibrary
    const later: Readonly<Record<string, object>> = {
      '/api/v1/library': { ...shippedLibrary, rulePacks },
      '/api/v1/library/earlier': {
        ...earlier,
        rulePacks: [...earlier.rulePacks, ...shippedLibrary.rulePacks],
      },
    }
    const asked: string[] = []
    server.answer = (url, init) => {
      asked.push(url)
      return later[url] ? Promise.resolve(Response.json(later[url])) : answer(url, init)
    }
    const { store } = await openOnScreen(server)
    expect(asked).toContain('/api/v1/library/earlier')
    const of = planOfVisit(store.state, useLibrary().library!)
    expect(of?.pack.version).toBe(store.state.pins.at(-1)?.pack?.version)
  })
})

describe('sending', () => {
  it('goes in pieces of at most a hundred entries', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    for (let n = 0; n < 230; n++) store.record('note', note(`n${n}`))
    server.online = true
    await store.flush()
    await vi.waitFor(() => expect(texts()).toHaveLength(230))
    expect(Math.max(...server.sendings)).toBeLessThanOrEqual(100)
    expect(texts()).toEqual(Array.from({ length: 230 }, (_, n) => `n${n}`))
  })
  it('and of at most half a megabyte', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    for (let n = 0; n < 99; n++) store.record('note', note(`${n} ${'é'.repeat(3_900)}`))
    server.online = true
    server.sendings.length = 0
    await store.flush()
    await vi.waitFor(() => expect(texts()).toHaveLength(99))
    expect(server.sendings).toHaveLength(2)
  })
})

describe('an entry that the server refuses', () => {
  /** Two good notes with an entry between them that the server’s licences do not allow. */
  async function withRefused() {
    const { store } = await openOnScreen(server)
    server.online = false
    store.record('note', note('first'))
    store.record('station-done', { station: 'prepare' })
    store.record('note', note('last'))
    // Meanwhile another took the very station: the device’s entry no longer fits.
    await vi.waitFor(async () => expect(await outbox.read(server.id)).toHaveLength(3))
    server.log.push({
      ...theirs('x'),
      kind: 'stopped',
      payload: { reason: 'Flooded' },
      personId: 'o',
      personName: 'The planner',
    } as never)
    server.online = true
    await store.flush()
    await store.resolveConflict(true)
    return store
  }
  it('is said with what to do, and everything stays on the device', async () => {
    const store = await withRefused()
    expect(store.refused?.draft.kind).toBe('note')
    expect(store.sendProblem).toMatch(/was stopped\. Plan another visit/)
    expect(store.pending).toHaveLength(3)
    expect(await outbox.read(server.id)).toHaveLength(3)
  })
  /** What an earlier page left on the device, not held against any guard. */
  const left = (drafts: readonly EventDraft[], press?: string) =>
    outbox.keep(
      drafts.map((draft) => ({
        id: draft.id,
        visitId: server.id,
        personId: PERSON.id,
        personName: PERSON.name,
        draft,
        ...(press ? { press } : {}),
      })),
    )
  const tooEarly = (): EventDraft => ({
    ...theirs('y'),
    kind: 'identity',
    payload: { outcome: 'confirmed' },
  })
  it('does not hold back what stands before it', async () => {
    await left([theirs('good'), tooEarly(), theirs('behind')])
    const { store } = await openOnScreen(server)
    await store.flush()
    expect(texts()).toEqual(['good'])
    expect(store.refused?.draft.kind).toBe('identity')
    expect(store.refused?.says).toMatch(/comes after Prepare/)
    await store.withdrawRefused('Identity confirmed')
    await settled(store)
    expect(texts()).toEqual(['good', 'Withdrawn before it was sent: Identity confirmed', 'behind'])
  })
  it('takes the whole press out that wrote it, and nothing of it stands on the server', async () => {
    await left([theirs('before')])
    const press = [theirs('first of three'), tooEarly(), theirs('last of three')]
    await left(press, press[0]!.id)
    await left([theirs('after')])
    const { store } = await openOnScreen(server)
    await store.flush()
    expect(texts()).toEqual(['before'])
    expect(store.refused?.draft.kind).toBe('identity')
    await store.withdrawRefused('Three in one')
    await settled(store)
    expect(texts()).toEqual(['before', 'Withdrawn before it was sent: Three in one', 'after'])
  })
  it('is tried again by itself only when the server was out of order', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const { store } = await openOnScreen(server)
    server.fails = problem(
      503,
      'no-database',
      'The database does not answer.',
      'Try again shortly.',
    )
    store.record('note', note('later'))
    await until(() => store.sendProblem !== '')
    expect(store.sendProblem).toMatch(/does not answer/)
    expect(texts()).toEqual([])
    await vi.advanceTimersByTimeAsync(5_000)
    await until(() => texts().length > 0)
    expect(texts()).toEqual(['later'])
    vi.useRealTimers()
  })
})

describe('two writers', () => {
  async function inConflict() {
    const { store } = await openOnScreen(server)
    server.write(theirs('theirs'), 'The reviewer')
    store.record('note', note('mine'))
    await vi.waitFor(() => expect(store.conflict).not.toBeNull())
    return store
  }
  it('are shown both sides; mine is kept behind theirs', async () => {
    const store = await inConflict()
    expect(store.conflict?.theirs).toHaveLength(1)
    expect(store.conflict?.ours).toHaveLength(1)
    await store.resolveConflict(true)
    await settled(store)
    expect(texts()).toEqual(['theirs', 'mine'])
  })
  it('or withdrawn, here and on the device', async () => {
    const store = await inConflict()
    await store.resolveConflict(false)
    expect(texts()).toEqual(['theirs'])
    await vi.waitFor(async () => expect(await kept()).toEqual([]))
    expect(store.events.map((e) => e.kind)).toEqual(['planned', 'note'])
  })
  it('while it is not decided nothing is sent, and what is recorded meanwhile is kept', async () => {
    const store = await inConflict()
    store.record('note', note('meanwhile'))
    await store.flush()
    expect(texts()).toEqual(['theirs'])
    await store.resolveConflict(false)
    await settled(store)
    expect(texts()).toEqual(['theirs', 'meanwhile'])
  })
})

describe('what was kept by an earlier version of the application', () => {
  it('is the technician’s of the visit, and sent', async () => {
    setActivePinia(createPinia())
    globalThis.fetch = server.answer as typeof fetch
    await outbox.keep([
      {
        id: uuidv7(),
        visitId: server.id,
        personId: '',
        personName: '',
        draft: theirs('from before'),
      },
    ])
    await Promise.all([useSession().load(), useLibrary().load()])
    const store = useVisit()
    await store.open(server.id)
    await settled(store)
    expect(texts()).toEqual(['from before'])
  })
})
