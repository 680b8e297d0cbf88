import { describe, expect, it, vi } from 'vitest'
import { makeSealedKey, openSealedKey, signText } from './sealedKey'

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' }
const BY = { name: 'ECDSA', hash: 'SHA-256' }

describe('the key of a device', () => {
  it('signs once it is opened with its PIN, for whoever has its public half', async () => {
    const { publicKey, sealed } = await makeSealedKey('274913')
    const key = await openSealedKey(sealed, '274913')
    if (!key) throw new Error('it stays shut')
    const signature = await signText(key, 'what was read')
    const half = await crypto.subtle.importKey('jwk', publicKey, CURVE, false, ['verify'])
    const holds = (text: string) =>
      crypto.subtle.verify(
        BY,
        half,
        Buffer.from(signature, 'base64url'),
        new TextEncoder().encode(text),
      )
    expect(await holds('what was read')).toBe(true)
    expect(await holds('what was not read')).toBe(false)
  })
  it('stays shut with any other PIN, and without the key of the browser', async () => {
    const { sealed } = await makeSealedKey('274913')
    expect(await openSealedKey(sealed, '274914')).toBeNull()
    const other = await makeSealedKey('274913')
    expect(await openSealedKey({ ...sealed, guard: other.sealed.guard }, '274913')).toBeNull()
  })
  it('takes a guess at the PIN as long as OWASP asks of PBKDF2 with SHA-256, with a salt of its own', async () => {
    const derive = vi.spyOn(crypto.subtle, 'deriveKey')
    await makeSealedKey('274913')
    await makeSealedKey('274913')
    const [one, other] = derive.mock.calls.map(([by]) => by as Pbkdf2Params)
    expect(one?.iterations).toBeGreaterThanOrEqual(600_000)
    expect(one?.hash).toBe('SHA-256')
    expect(one?.salt.byteLength).toBeGreaterThanOrEqual(16)
    expect(one?.salt).not.toEqual(other?.salt)
    derive.mockRestore()
  })
  it('cannot be read out, open or sealed', async () => {
    const { sealed } = await makeSealedKey('274913')
    const key = await openSealedKey(sealed, '274913')
    if (!key) throw new Error('it stays shut')
    await expect(crypto.subtle.exportKey('pkcs8', key)).rejects.toThrow()
    await expect(crypto.subtle.exportKey('raw', sealed.guard)).rejects.toThrow()
  })
})
