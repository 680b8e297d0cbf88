import type { Visit } from '@uvanta/contract'
import type { EventDraft } from '@uvanta/core/visit'
import { v7 as uuidv7 } from 'uuid'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'
import { problem } from '@/testing/visitOnScreen'
import type { Sendable } from './pieces'
import { visitSending } from './visitSending'

const noteOf = (text: string): EventDraft => ({
  id: uuidv7(),
  kind: 'note',
  payload: { station: 'prepare', text },
  deviceTime: '2026-06-01T08:05:00.000Z',
  deviceOffset: 0,
})
interface Batch {
  readonly expected: number
  readonly as?: string
  readonly events: EventDraft[]
}
/** What came to the server; what it answers the next sendings with, or no line at all. */
let batches: Batch[]
let next: (object | 'no line')[]
beforeEach(() => {
  batches = []
  next = []
  globalThis.fetch = ((_: string, init: RequestInit) => {
    const batch = JSON.parse(init.body as string) as Batch
    batches.push(batch)
    const answer = next.shift()
    if (answer === 'no line') return Promise.reject(new TypeError('no line'))
    const { status = 200 } = (answer ?? {}) as { status?: number }
    const taken = batch.events.map((e) => ({ ...e, personId: 'p', personName: 'Odda Marrin' }))
    return Promise.resolve(Response.json(answer ?? { items: taken }, { status }))
  }) as typeof fetch
})
afterEach(() => vi.useRealTimers())

/** A visit with entries that wait, each of a press of its own unless said otherwise. */
function desk(texts: readonly string[], press = (n: number) => String(n)) {
  const pending = shallowRef<readonly Sendable[]>(
    texts.map((text, n) => ({ draft: noteOf(text), press: press(n) })),
  )
  const visit = shallowRef<Visit | null>({ id: uuidv7(), events: [] } as unknown as Visit)
  const owner = ref<{ readonly id: string } | null>({ id: 'p' })
  const here = ref(true)
  const forget = vi.fn<(ids: Iterable<string>) => Promise<void>>().mockResolvedValue()
  const reload = vi.fn<() => Promise<void>>().mockResolvedValue()
  const sendPhotos = vi.fn<() => Promise<void>>().mockResolvedValue()
  const sending = visitSending({
    visit,
    pending,
    owner,
    ownerIsHere: () => here.value,
    sendPhotos,
    reload,
    forget,
  })
  const forgotten = () => forget.mock.calls.flatMap(([ids]) => [...ids])
  return { ...sending, pending, visit, owner, here, forget, forgotten, reload, sendPhotos }
}
const textsOf = (events: readonly { payload: unknown }[]) =>
  events.map((e) => (e.payload as { text: string }).text)
const waits = ({ pending }: ReturnType<typeof desk>) => textsOf(pending.value.map((s) => s.draft))
const REFUSED = problem(409, 'rule', 'No.', 'Do otherwise.')
const refusedBy = (id: string) => ({ ...REFUSED, event: id })

describe('what waits of a visit', () => {
  it('is sent under the name of whoever made it, behind what the device knows, and let go of', async () => {
    const d = desk(['one', 'two'])
    const ids = d.pending.value.map((s) => s.draft.id)
    await d.flush()
    expect(batches).toMatchObject([
      { expected: 0, as: 'p', events: [{ id: ids[0] }, { id: ids[1] }] },
    ])
    expect(textsOf(d.visit.value?.events ?? [])).toEqual(['one', 'two'])
    expect([waits(d), d.problem.value, d.forgotten()]).toEqual([[], '', ids])
    expect(d.reload).not.toHaveBeenCalled()
    d.pending.value = [{ draft: noteOf('three'), press: 'x' }]
    await d.flush()
    expect(batches.at(-1)?.expected).toBe(2)
  })
  it('waits while somebody else is signed in, and nothing is lost', async () => {
    const d = desk(['Odda’s own'])
    d.here.value = false
    await d.flush()
    expect([batches, waits(d), d.forgotten()]).toEqual([[], ['Odda’s own'], []])
    d.here.value = true
    await d.flush()
    expect(waits(d)).toEqual([])
  })
  it('is read anew from the server once a signature is in it, for what follows from it', async () => {
    const d = desk(['last words'])
    const signed = { ...noteOf(''), kind: 'signed', payload: {} } as unknown as EventDraft
    d.pending.value = [...d.pending.value, { draft: signed, press: 'sign' }]
    await d.flush()
    expect(d.reload).toHaveBeenCalledExactlyOnceWith(d.visit.value?.id)
  })
  it('goes after the photographs, and though these cannot go', async () => {
    const d = desk(['with a picture'])
    d.sendPhotos.mockImplementation(() => {
      expect(batches).toEqual([])
      return Promise.resolve()
    })
    await d.flush()
    expect([d.sendPhotos.mock.calls.length, batches.length]).toEqual([1, 1])
    d.pending.value = [{ draft: noteOf('without its picture'), press: 'x' }]
    d.sendPhotos.mockRejectedValue(new ApiProblem(problem(413, 'too-large', 'x', 'y') as never))
    await d.flush()
    expect([batches.length, waits(d)]).toEqual([2, []])
  })
  it('is not sent twice at once', async () => {
    const d = desk(['once'])
    await Promise.all([d.flush(), d.flush()])
    expect(batches).toHaveLength(1)
  })
  it('of a visit that was left meanwhile is not put into the one that is open now', async () => {
    const d = desk(['of the first'])
    const other = { id: uuidv7(), events: [] } as unknown as Visit
    const { fetch } = globalThis
    globalThis.fetch = ((url: string, init: RequestInit) => {
      d.visit.value = other
      return fetch(url, init)
    }) as typeof fetch
    await d.flush()
    expect(d.visit.value).toBe(other)
    expect(waits(d)).toEqual(['of the first'])
  })
})

describe('a sending that fails', () => {
  it.each<[string, object | 'no line']>([
    ['without a line', 'no line'],
    ['since the server is out of order', problem(500, 'unexpected', 'Oh.', 'Try again.')],
  ])('%s is tried again by itself', async (_, answer) => {
    vi.useFakeTimers()
    const d = desk(['again'])
    next = [answer]
    await d.flush()
    expect([waits(d), d.problem.value === '']).toEqual([['again'], false])
    expect(d.refused.value).toBeNull()
    await vi.advanceTimersByTimeAsync(3_900)
    expect(batches).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(200)
    expect([batches.length, waits(d), d.problem.value]).toEqual([2, [], ''])
  })
  it('for a reason that stays is not tried again, and not once the visit was left', async () => {
    vi.useFakeTimers()
    const d = desk(['refused'])
    next = [problem(499, 'rule', 'No.', 'Do otherwise.')]
    await d.flush()
    await vi.advanceTimersByTimeAsync(10_000)
    expect(batches).toHaveLength(1)
    next = ['no line']
    await d.flush()
    d.reset()
    await vi.advanceTimersByTimeAsync(10_000)
    expect([batches.length, d.problem.value]).toEqual([2, ''])
  })
  it('is no matter of ours where it is no answer of the server', async () => {
    const d = desk(['x'])
    d.sendPhotos.mockRejectedValue(new Error('a fault of ours'))
    await expect(d.flush()).rejects.toThrow('a fault of ours')
  })
})

describe('an entry that is refused', () => {
  it('is named, after what stands before it was sent by itself', async () => {
    const d = desk(['good', 'bad', 'behind'])
    const bad = d.pending.value[1]!.draft
    next = [refusedBy(bad.id)]
    // The first is sent alone, the other two again.
    const { fetch } = globalThis
    let sendings = 0
    globalThis.fetch = ((url: string, init: RequestInit) => {
      sendings++
      if (sendings === 3) next = [refusedBy(bad.id)]
      return fetch(url, init)
    }) as typeof fetch
    await d.flush()
    expect(batches.map((b) => textsOf(b.events))).toEqual([
      ['good', 'bad', 'behind'],
      ['good'],
      ['bad', 'behind'],
    ])
    expect(d.refused.value).toEqual({ draft: bad, says: 'No. Do otherwise.' })
    expect(waits(d)).toEqual(['bad', 'behind'])
    expect(await d.withdrawRefused()).toBe(true)
    expect([waits(d), d.forgotten().at(-1), d.refused.value]).toEqual([['behind'], bad.id, null])
  })
  it('is found by its place where its content is malformed, and goes with its whole press', async () => {
    const d = desk(['good', 'one', 'two'], (n) => (n === 0 ? 'alone' : 'together'))
    const malformed = { ...REFUSED, fields: [{ path: 'events[2].payload.text', message: 'x' }] }
    const again = { ...REFUSED, fields: [{ path: 'events[1].payload.text', message: 'x' }] }
    next = [malformed]
    const { fetch } = globalThis
    let sendings = 0
    globalThis.fetch = ((url: string, init: RequestInit) => {
      sendings++
      if (sendings === 3) next = [again]
      return fetch(url, init)
    }) as typeof fetch
    await d.flush()
    expect(d.refused.value?.draft).toBe(d.pending.value[1]?.draft)
    expect(waits(d)).toEqual(['one', 'two'])
    await d.withdrawRefused()
    expect(waits(d)).toEqual([])
  })
  it('is not named where the server names none; nothing is withdrawn then', async () => {
    const d = desk(['x'])
    next = [{ ...REFUSED, fields: [{ path: 'expected', message: 'x' }] }]
    await d.flush()
    expect([d.refused.value, d.problem.value]).toEqual([null, 'No. Do otherwise.'])
    expect(await d.withdrawRefused()).toBe(false)
    expect(waits(d)).toEqual(['x'])
  })
})

describe('another writer', () => {
  const theirs = (personId: string) => [
    { ...noteOf('theirs'), personId, personName: 'The reviewer' },
  ]
  const newer = (personId: string) => ({
    ...problem(409, 'newer-events', 'Someone wrote.', 'Read it.'),
    events: theirs(personId),
  })
  it('stops the sending, until it is said what becomes of ours', async () => {
    const d = desk(['ours'])
    next = [newer('r')]
    await d.flush()
    expect(textsOf(d.conflict.value?.theirs ?? [])).toEqual(['theirs'])
    expect(textsOf(d.conflict.value?.ours ?? [])).toEqual(['ours'])
    await d.flush()
    expect(batches).toHaveLength(1)
    await d.resolveConflict(true)
    expect(textsOf(d.visit.value?.events ?? [])).toEqual(['theirs', 'ours'])
    expect([d.conflict.value, batches.at(-1)?.expected]).toEqual([null, 1])
  })
  it('is heard, and ours withdrawn here and on the device', async () => {
    const d = desk(['ours'])
    const ours = d.pending.value[0]!.draft.id
    next = [newer('r')]
    await d.flush()
    await d.resolveConflict(false)
    expect(textsOf(d.visit.value?.events ?? [])).toEqual(['theirs'])
    expect([waits(d), batches.length]).toEqual([[], 1])
    expect(d.forgotten()).toContain(ours)
  })
  it('is none where it was the same person elsewhere: both are kept', async () => {
    const d = desk(['ours'])
    next = [newer('p')]
    await d.flush()
    expect(d.conflict.value).toBeNull()
    expect(textsOf(d.visit.value?.events ?? [])).toEqual(['theirs', 'ours'])
  })
})
