import 'fake-indexeddb/auto'
import { Job } from '@uvanta/core/testing'
import { type EventDraft, foldVisit, signedText, type VisitEvent } from '@uvanta/core/visit'
import { v7 as uuidv7 } from 'uuid'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { testedDoubleCheck } from '@/testing/testedDoubleCheck'
import { OneVisitServer, openOnScreen, PASSWORD, PERSON } from '@/testing/visitOnScreen'
import { outbox } from './outbox'
import { openDevice } from './device'
import { photoOutbox } from './photoOutbox'
import { useSession } from './session'

/** A double check that passed, at its last station. */
const tested = () => testedDoubleCheck('1.6').done('as-found', 'return').done('return')
const FRESH = { family: 'tower-double-check', kind: 'DC', packId: 'larkhaven-check-first' }
let server: OneVisitServer
beforeEach(async () => {
  await (await openDevice()).clear('photos')
  await outbox.forget((await outbox.of(PERSON.id)).map((e) => e.id))
  server = new OneVisitServer(tested())
})
const SIGNED = { signature: 'M 10 10 L 200 90', name: 'Odda Marrin', outcome: 'pass' } as const
const kindsOf = () => server.log.map((e) => e.kind)
const inOrder = () => new Blob(['a picture'], { type: 'image/png' })

describe('signing with the key of the device', () => {
  const key = { device: uuidv7(), signature: 'A'.repeat(86) }
  it('signs what stands in the visit, and records it', async () => {
    const { store } = await openOnScreen(server)
    const sign = vi.fn<(text: string) => Promise<typeof key>>().mockResolvedValue(key)
    expect(await store.signByKey(SIGNED, sign)).toBeNull()
    const signed = store.events.at(-1) as VisitEvent<'signed'>
    expect(signed.payload).toEqual({ ...SIGNED, byKey: key })
    expect([signed.personId, signed.personName]).toEqual([PERSON.id, PERSON.name])
    // Of the log before it, and of the signature without its key.
    const { byKey: _, ...payload } = signed.payload
    const draft = { ...signed, payload } as EventDraft<'signed'>
    const before = store.events.slice(0, -1)
    expect(sign).toHaveBeenCalledExactlyOnceWith(
      signedText(server.id as never, before, PERSON.id as never, draft),
    )
  })
  it('asks for no PIN where a guard refuses', async () => {
    server = new OneVisitServer(new Job(FRESH))
    const { store } = await openOnScreen(server)
    const sign = vi.fn<(text: string) => Promise<typeof key>>()
    expect(await store.signByKey(SIGNED, sign)).toMatchObject({
      code: expect.any(String) as string,
    })
    expect(sign).not.toHaveBeenCalled()
  })
  it('signs no visit but the one that was open as it was asked', async () => {
    const { store } = await openOnScreen(server)
    const other = new OneVisitServer(tested())
    const done = await store.signByKey(SIGNED, async () => {
      globalThis.fetch = other.answer as typeof fetch
      await store.open(other.id)
      return key
    })
    expect(done).toBeNull()
    expect([...kindsOf(), ...store.events.map((e) => e.kind)]).not.toContain('signed')
  })
})

describe('signing with the password', () => {
  it('is not asked for while entries wait', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    store.record('note', { station: 'return', text: 'still here' })
    await expect(store.sign(SIGNED, PASSWORD)).rejects.toMatchObject({ code: 'not-sent-yet' })
    expect(server.asked.filter((url) => url.endsWith('/sign'))).toEqual([])
  })
})

describe('correcting what was signed', () => {
  it('is sent with the password, at the state that was seen', async () => {
    const { store } = await openOnScreen(server)
    const [reading] = server.log.filter((e) => e.kind === 'reading')
    const payload = { of: reading!.id, why: 'Mistyped', withdraw: true }
    await expect(store.correctSigned(payload as never, 'wrong')).rejects.toMatchObject({
      code: 'refused',
    })
    await store.correctSigned(payload as never, PASSWORD)
    expect(server.log.at(-1)).toMatchObject({ kind: 'correction', payload })
    expect(store.events.at(-1)?.kind).toBe('correction')
  })
})

describe('a photograph', () => {
  it('waits on the device with its visit and person, and is named in the visit', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    expect(await store.recordPhoto(inOrder(), { station: 'return', caption: 'The pit' })).toBeNull()
    const [kept] = await (await openDevice()).getAll('photos')
    expect(kept).toMatchObject({ visitId: server.id, personId: PERSON.id })
    const named = store.events.at(-1) as VisitEvent<'photo'>
    expect(named.payload).toEqual({ station: 'return', caption: 'The pit', photoId: kept?.id })
  })
  it('is not named where the device has no room for it', async () => {
    const { store } = await openOnScreen(server)
    const full = vi.spyOn(photoOutbox, 'keep').mockRejectedValue(new DOMException('', 'Quota'))
    expect(await store.recordPhoto(inOrder(), { station: 'return', caption: '' })).not.toBeNull()
    full.mockRestore()
    expect(store.events.map((e) => e.kind)).not.toContain('photo')
  })
  it('is sent by whoever took it, and then off the device', async () => {
    const kept = { visitId: server.id as never, content: inOrder() }
    await photoOutbox.keep({ ...kept, id: 'mine', personId: PERSON.id })
    await photoOutbox.keep({ ...kept, id: 'from-before' })
    await photoOutbox.keep({ ...kept, id: 'theirs', personId: 't' })
    await photoOutbox.keep({ ...kept, id: 'elsewhere', personId: PERSON.id, visitId: 'v' as never })
    const sent: [string, RequestInit][] = []
    globalThis.fetch = ((url: string, init: RequestInit) => {
      sent.push([url, init])
      return Promise.resolve(new Response(null, { status: 204 }))
    }) as typeof fetch
    await photoOutbox.flush(server.id as never, PERSON.id as never)
    expect(sent.map(([url]) => url.split('/').at(-1))).toEqual(['from-before', 'mine'])
    expect(sent[0]?.[0]).toContain(server.id)
    expect(sent[0]?.[1]).toMatchObject({ method: 'PUT', headers: { 'Content-Type': 'image/png' } })
    const left = await (await openDevice()).getAllKeys('photos')
    expect(left).toEqual(['elsewhere', 'theirs'])
  })
  it('that the server does not take stays on the device', async () => {
    await photoOutbox.keep({ id: 'p1', visitId: server.id as never, content: inOrder() })
    const problem = { type: 'urn:uvanta:problem:not-a-picture', status: 422, detail: 'x' }
    globalThis.fetch = (() =>
      Promise.resolve(Response.json(problem, { status: 422 }))) as typeof fetch
    await expect(photoOutbox.flush(server.id as never, PERSON.id as never)).rejects.toMatchObject({
      code: 'not-a-picture',
    })
    expect(await photoOutbox.read('p1')).toBeDefined()
  })
})

describe('taking back', () => {
  it('writes what the last press wrote as undone; both stay', async () => {
    server = new OneVisitServer(new Job(FRESH))
    const { store } = await openOnScreen(server)
    expect(store.lastPress).toBeNull()
    store.record('station-done', { station: 'prepare' })
    const pressed = store.events.at(-1)
    expect(store.lastPress?.map((d) => d.id)).toEqual([pressed?.id])
    expect(store.undo()).toBeNull()
    expect(store.events.slice(-2)).toMatchObject([
      { kind: 'station-done' },
      { kind: 'undone', payload: { of: [pressed?.id] } },
    ])
    expect(store.state.done).toEqual([])
  })
  it('is not offered of what stays', async () => {
    const { store } = await openOnScreen(server)
    store.record('note', { station: 'return', text: 'stays' })
    expect(store.lastPress).toBeNull()
  })
})

describe('withdrawing what is refused', () => {
  it('leaves no note in a visit that is stopped', async () => {
    const { store } = await openOnScreen(server)
    server.online = false
    store.record('note', { station: 'return', text: 'too late' })
    await vi.waitFor(async () => expect(await outbox.of(PERSON.id)).toHaveLength(1))
    const stopped = { id: uuidv7(), kind: 'stopped', payload: { reason: 'Flooded' } }
    server.write(
      { ...stopped, deviceTime: '2026-06-01T09:00:00.000Z', deviceOffset: 0 } as EventDraft,
      'The planner',
    )
    server.online = true
    await store.flush()
    await store.resolveConflict(true)
    await store.withdrawRefused('A note')
    await store.flush()
    expect(store.pending).toEqual([])
    expect(foldVisit(server.log).notes.map((n) => n.text)).toEqual([])
  })
})

it('a guard’s refusal is said before anything is recorded, and nobody records unknown', async () => {
  const { store } = await openOnScreen(server)
  expect(store.refusal('station-done', { station: 'as-left' })).toMatchObject({
    code: expect.any(String) as string,
  })
  expect(store.refusal('note', { station: 'return', text: 'fine' })).toBeNull()
  expect(store.refusal('note', { station: 'return', text: 'x'.repeat(20_000) })).not.toBeNull()
  expect(store.mine).toBe(true)
  useSession().person = null
  expect(store.record('note', { station: 'return', text: 'of nobody' })).not.toBeNull()
})
