import 'fake-indexeddb/auto'
import { api } from 'virtual:api'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick } from 'vue'
import { call } from '@/api/client'
import { asOf, keptAnswers } from '@/api/kept'
import { PERSON, problem } from '@/testing/visitOnScreen'
import { type KeptKey, openDevice } from './device'
import { useDeviceKey } from './deviceKey'
import { useLock } from './lock'
import { useSession } from './session'

const PIN = '274913'
/** What the server answers at each address; without an answer there is no line. */
let answers: Record<string, object>
let asked: string[]
const ME = {
  person: PERSON,
  today: '2026-06-01',
  units: { gaugePressure: 'psi', differential: 'psi' },
  house: { gaugePressure: 'psi', differential: 'psi' },
  utility: 'Larkhaven Gas & Water',
}
const KNOWN = {
  '/api/v1/session': ME,
  '/api/v1/stock': { items: [{ number: 'K-1' }] },
  '/api/v1/devices': {},
  '/api/v1/session/challenge': { challenge: 'a-challenge' },
  '/api/v1/session/key': {},
}
const REVOKED = problem(401, 'not-signed-in', 'The key does not count.', 'Use the password.')
let scope = effectScope()

beforeEach(async () => {
  localStorage.clear()
  setActivePinia(createPinia())
  scope = effectScope()
  asOf.value = null
  answers = { ...KNOWN }
  asked = []
  vi.stubGlobal('fetch', (url: string) => {
    asked.push(url)
    const found = answers[url]
    if (!found) return Promise.reject(new TypeError('no line'))
    const { status = 200 } = found as { status?: number }
    return Promise.resolve(Response.json(found, { status }))
  })
  useSession().person = PERSON as never
  keptAnswers.belongTo(PERSON.id)
  await (await openDevice()).clear('keys')
  await call(api.stock.list)
  await vi.waitFor(async () => expect(await kept()).toBeDefined())
})
afterEach(async () => {
  scope.stop()
  await keptAnswers.clear(PERSON.id)
  vi.unstubAllGlobals()
})
const kept = () => keptAnswers.place(api.stock.list.path).read()
const begin = () => scope.run(() => useLock().begin())
async function withKey(): Promise<KeptKey> {
  const keys = useDeviceKey()
  await keys.setUp({ password: 'x' }, PIN)
  return keys.own()!
}

describe('locking', () => {
  it('by a session that was ended elsewhere leaves nothing to read on a device without a key', async () => {
    useLock().lock('ended')
    await vi.waitFor(async () => expect(await kept()).toBeUndefined())
  })
  it('while idle, or with a key of the person on the device, keeps the answers', async () => {
    useLock().lock('idle')
    await new Promise((done) => setTimeout(done, 20))
    expect(await kept()).toBeDefined()
    await withKey()
    setActivePinia(createPinia())
    useSession().person = PERSON as never
    await useDeviceKey().refresh()
    useLock().lock('ended')
    await new Promise((done) => setTimeout(done, 20))
    expect(await kept()).toBeDefined()
  })
  it('has the first of its reasons, and none where nobody is signed in', () => {
    const lock = useLock()
    useSession().person = null
    lock.lock('hand')
    expect(lock.reason).toBeNull()
    useSession().person = PERSON as never
    lock.lock('hand')
    lock.lock('idle')
    expect(lock.reason).toBe('hand')
  })
  it('outlives a reload, until it is opened', async () => {
    const row = await withKey()
    useLock().lock('hand')
    await nextTick()
    setActivePinia(createPinia())
    useSession().person = PERSON as never
    await begin()
    const lock = useLock()
    expect(lock.reason).toBe('start')
    await lock.openWithPin(row, PIN)
    expect([lock.reason, lock.openings]).toEqual([null, 1])
    setActivePinia(createPinia())
    useSession().person = PERSON as never
    await begin()
    expect(useLock().reason).toBeNull()
  })
  it('is done at the start where a device with a PIN lay about, or has no line', async () => {
    await withKey()
    // It was never touched: it lay about.
    await begin()
    expect(useLock().reason).toBe('start')
  })
  it('is not done at the start of a device without a PIN', async () => {
    await begin()
    expect(useLock().reason).toBeNull()
  })
  it('waits for somebody to be known', async () => {
    await withKey()
    useSession().person = null
    await begin()
    expect(useLock().reason).toBeNull()
    useSession().person = PERSON as never
    await nextTick()
    expect(useLock().reason).toBe('start')
  })
})

describe('opening', () => {
  it('with the PIN signs in at the server and counts as one', async () => {
    const row = await withKey()
    const lock = useLock()
    lock.lock('idle')
    await expect(lock.openWithPin(row, '000000')).rejects.toMatchObject({ left: 9 })
    expect(lock.reason).toBe('idle')
    await lock.openWithPin(useDeviceKey().own()!, PIN)
    expect([lock.reason, lock.openings]).toEqual([null, 1])
    expect(asked).toEqual(expect.arrayContaining(['/api/v1/session/key', '/api/v1/session']))
  })
  it('with the PIN goes without a line, as whom the device knows', async () => {
    const row = await withKey()
    const lock = useLock()
    lock.leaveTo()
    expect(useSession().person).toBeNull()
    answers = {}
    await lock.openWithPin(row, PIN)
    expect(lock.reason).toBeNull()
    expect(useSession().person?.id).toBe(PERSON.id)
  })
  it('with the PIN of a key that was revoked is refused, and leaves neither key nor answers', async () => {
    const row = await withKey()
    const lock = useLock()
    lock.lock('idle')
    answers['/api/v1/session/key'] = REVOKED
    await expect(lock.openWithPin(row, PIN)).rejects.toMatchObject({ status: 401 })
    expect(lock.reason).toBe('idle')
    expect(useDeviceKey().own()).toBeUndefined()
    expect(await kept()).toBeUndefined()
  })
  it('with the PIN keeps the key where the server is out of order', async () => {
    const row = await withKey()
    answers['/api/v1/session/key'] = problem(503, 'unavailable', 'Not now.', 'Try later.')
    await expect(useLock().openWithPin(row, PIN)).rejects.toMatchObject({ status: 503 })
    expect(useDeviceKey().own()).toBeDefined()
    expect(await kept()).toBeDefined()
  })
  it('with the password', async () => {
    const lock = useLock()
    lock.lock('idle')
    await lock.openWithPassword('odda', 'x')
    expect([lock.reason, lock.openings]).toEqual([null, 1])
  })
})

describe('a session that the server has ended', () => {
  const ended = () => {
    answers['/api/v1/gauges'] = problem(401, 'not-signed-in', 'Nobody.', 'Sign in.')
    return call(api.gauges.list).catch(() => undefined)
  }
  it('is taken up again by the key of the shift without a question', async () => {
    const row = await withKey()
    const lock = useLock()
    await begin()
    await lock.openWithPin(row, PIN)
    asked = []
    await ended()
    await vi.waitFor(() => expect(lock.openings).toBe(2))
    expect(asked).toContain('/api/v1/session/key')
    expect(lock.reason).toBeNull()
  })
  it('locks the screen when there is no key of the shift', async () => {
    await begin()
    await ended()
    await vi.waitFor(() => expect(useLock().reason).toBe('ended'))
    expect(useLock().openings).toBe(0)
  })
  it('asks as well where the key counts no more, and waits where there is no line', async () => {
    const row = await withKey()
    const lock = useLock()
    await begin()
    await lock.openWithPin(row, PIN)
    delete answers['/api/v1/session/challenge']
    await ended()
    await new Promise((done) => setTimeout(done, 20))
    expect(lock.reason).toBeNull()
    answers['/api/v1/session/challenge'] = REVOKED
    await ended()
    await vi.waitFor(() => expect(lock.reason).toBe('ended'))
  })
  it('is not taken up by the key of somebody else', async () => {
    const row = await withKey()
    const lock = useLock()
    await begin()
    await lock.openWithPin(row, PIN)
    useSession().person = { ...PERSON, id: 't' } as never
    asked = []
    await ended()
    await vi.waitFor(() => expect(lock.reason).toBe('ended'))
    expect(asked).not.toContain('/api/v1/session/key')
  })
})
