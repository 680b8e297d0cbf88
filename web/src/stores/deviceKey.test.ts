import 'fake-indexeddb/auto'
import { signInText } from '@uvanta/contract/signInText'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { PERSON, problem } from '@/testing/visitOnScreen'
import { openDevice } from './device'
import { useDeviceKey, WrongPin } from './deviceKey'
import { renewKeptPerson } from './keptPerson'
import { useSession } from './session'

const PIN = '274913'
const PROOF = { password: 'larkhaven-password' }
interface Sent {
  readonly method: string
  readonly url: string
  readonly body?: Record<string, unknown>
}
let sent: Sent[]
let refuses: ReturnType<typeof problem> | null
beforeEach(async () => {
  setActivePinia(createPinia())
  useSession().person = PERSON as never
  sent = []
  refuses = null
  globalThis.fetch = ((url: string, init: RequestInit) => {
    const { body } = init
    const said = typeof body === 'string' ? { body: JSON.parse(body) as Sent['body'] } : {}
    sent.push({ method: init.method ?? '', url, ...said } as Sent)
    if (refuses) return Promise.resolve(Response.json(refuses, { status: refuses.status }))
    return Promise.resolve(Response.json({ challenge: 'a-challenge' }))
  }) as typeof fetch
  await (await openDevice()).clear('keys')
})
const withKey = async () => {
  const keys = useDeviceKey()
  await keys.setUp(PROOF, PIN)
  return keys
}
const kept = async () => (await openDevice()).getAll('keys')
const wrongOf = (work: Promise<unknown>) => work.catch((error: unknown) => error)

describe('the key of a person on a device', () => {
  it('is registered with the password, and kept sealed for that person', async () => {
    const keys = await withKey()
    const { device, personId, wrong } = keys.own() ?? {}
    expect([personId, wrong]).toEqual([PERSON.id, 0])
    expect(sent).toMatchObject([
      { method: 'POST', url: '/api/v1/devices', body: { id: device, ...PROOF } },
    ])
    expect(sent[0]?.body?.publicKey).toMatchObject({ kty: 'EC', crv: 'P-256' })
    expect(String(sent[0]?.body?.label)).toMatch(/\d+ × \d+$/)
    // Neither the PIN nor the private half leaves the device.
    expect(JSON.stringify(sent)).not.toContain(PIN)
    expect(Object.keys(sent[0]?.body?.publicKey ?? {}).toSorted()).toEqual(['crv', 'kty', 'x', 'y'])
    useSession().person = { ...PERSON, id: 't' } as never
    expect(keys.own()).toBeUndefined()
    expect(keys.kept).toHaveLength(1)
  })
  it('is not kept where the server does not take it, nor made for nobody', async () => {
    refuses = problem(409, 'password-wrong', 'That is not your password.', 'Type it again.')
    await expect(useDeviceKey().setUp(PROOF, PIN)).rejects.toMatchObject({ code: 'password-wrong' })
    expect(await kept()).toEqual([])
    refuses = null
    useSession().person = null
    await useDeviceKey().setUp(PROOF, PIN)
    expect([await kept(), sent.length]).toEqual([[], 1])
  })
  it('signs what its person signs, and signs him in by a challenge', async () => {
    const keys = await withKey()
    const { x, y } = sent[0]?.body?.publicKey as { x: string; y: string }
    const half = await crypto.subtle.importKey(
      'jwk',
      { kty: 'EC', crv: 'P-256', x, y },
      { name: 'ECDSA', namedCurve: 'P-256' },
      false,
      ['verify'],
    )
    const holds = (signature: string, text: string) =>
      crypto.subtle.verify(
        { name: 'ECDSA', hash: 'SHA-256' },
        half,
        Buffer.from(signature, 'base64url'),
        new TextEncoder().encode(text),
      )
    const { device, signature } = await keys.sign(PIN, 'what was read')
    expect(device).toBe(keys.own()?.device)
    expect(await holds(signature, 'what was read')).toBe(true)
    const row = keys.own()!
    await keys.signIn(row, await keys.open(row, PIN))
    expect(sent.slice(1).map((s) => s.url)).toEqual([
      '/api/v1/session/challenge',
      '/api/v1/session/key',
    ])
    const said = sent.at(-1)?.body as { device: string; signature: string }
    expect(said.device).toBe(row.device)
    expect(await holds(said.signature, signInText('a-challenge'))).toBe(true)
  })
  it('signs nothing where there is none', async () => {
    await expect(useDeviceKey().sign(PIN, 'x')).rejects.toThrow()
  })
  it('counts wrong PINs, forgets them with a right one, and is gone after the tenth', async () => {
    const keys = await withKey()
    const open = (pin: string) => keys.open(keys.own()!, pin)
    expect(await wrongOf(open('000000'))).toMatchObject({ left: 9 })
    expect(await wrongOf(open('000000'))).toMatchObject({ left: 8 })
    expect((await kept())[0]?.wrong).toBe(2)
    await open(PIN)
    expect((await kept())[0]?.wrong).toBe(0)
    for (let n = 9; n >= 1; n--) expect(await wrongOf(open('000000'))).toMatchObject({ left: n })
    const last = await wrongOf(open('000000'))
    expect(last).toBeInstanceOf(WrongPin)
    expect(last).toMatchObject({ left: 0 })
    expect(await kept()).toEqual([])
    expect(keys.own()).toBeUndefined()
  })
  it('is revoked at the server before it is off the device', async () => {
    const keys = await withKey()
    const { device } = keys.own()!
    refuses = problem(503, 'unavailable', 'Not now.', 'Try later.')
    await expect(keys.remove()).rejects.toMatchObject({ status: 503 })
    expect(await kept()).toHaveLength(1)
    refuses = null
    await keys.remove()
    expect(sent.at(-1)).toMatchObject({ method: 'DELETE', url: `/api/v1/devices/${device}` })
    expect([await kept(), keys.own()]).toEqual([[], undefined])
    const before = sent.length
    await keys.remove()
    expect(sent).toHaveLength(before)
  })
  it('is of nobody where the storage of the device is shut', async () => {
    const keys = await withKey()
    const shut = vi.spyOn(IDBDatabase.prototype, 'transaction').mockImplementation(() => {
      throw new DOMException('', 'InvalidStateError')
    })
    await keys.refresh()
    shut.mockRestore()
    expect(keys.kept).toEqual([])
  })
  it('knows its person as the server knew him last', async () => {
    const keys = await withKey()
    const units = { gaugePressure: 'kPa', differential: 'kPa' } as const
    const person = { ...PERSON, roles: ['reviewer'] } as never
    await renewKeptPerson({ person, units, utility: 'Larkhaven' })
    await renewKeptPerson({ person: { ...PERSON, id: 'other' } as never, units, utility: 'x' })
    await keys.refresh()
    expect(keys.kept).toMatchObject([{ person, units, utility: 'Larkhaven', wrong: 0 }])
  })
})
