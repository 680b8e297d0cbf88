import type { DevicePublicKey } from '@uvanta/contract'
import { base64url } from 'jose'
import type { SealedKey } from '@/stores/device'

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' } as const
const BY = { name: 'ECDSA', hash: 'SHA-256' } as const
/** OWASP’s recommendation for PBKDF2 with SHA-256. */
const ROUNDS = 600_000

const random = (bytes: number) => crypto.getRandomValues(new Uint8Array(bytes))
const gcm = (iv: Uint8Array<ArrayBuffer>) => ({ name: 'AES-GCM', iv }) as const

async function keyOfPin(pin: string, salt: Uint8Array<ArrayBuffer>): Promise<CryptoKey> {
  const text = new TextEncoder().encode(pin)
  const base = await crypto.subtle.importKey('raw', text, 'PBKDF2', false, ['deriveKey'])
  return crypto.subtle.deriveKey(
    { name: 'PBKDF2', hash: 'SHA-256', salt, iterations: ROUNDS },
    base,
    { name: 'AES-GCM', length: 256 },
    false,
    ['wrapKey', 'unwrapKey'],
  )
}

/**
 * Makes a key of this device. Its private half leaves this function sealed only: under the PIN, and
 * around that under a key that the browser keeps to itself, so that a copied file is of no use.
 */
export async function makeSealedKey(
  pin: string,
): Promise<{ readonly publicKey: DevicePublicKey; readonly sealed: SealedKey }> {
  const pair = await crypto.subtle.generateKey(CURVE, true, ['sign', 'verify'])
  const guard = await crypto.subtle.generateKey({ name: 'AES-GCM', length: 256 }, false, [
    'encrypt',
    'decrypt',
  ])
  const [salt, nonce, outerNonce] = [random(16), random(12), random(12)]
  const under = await keyOfPin(pin, salt)
  const inner = await crypto.subtle.wrapKey('pkcs8', pair.privateKey, under, gcm(nonce))
  const content = await crypto.subtle.encrypt(gcm(outerNonce), guard, inner)
  const { x = '', y = '' } = await crypto.subtle.exportKey('jwk', pair.publicKey)
  return {
    publicKey: { kty: 'EC', crv: 'P-256', x, y },
    sealed: { salt, nonce, outerNonce, content, guard },
  }
}

/** @returns the key, which can sign and not be read; null when the PIN is wrong */
export async function openSealedKey(sealed: SealedKey, pin: string): Promise<CryptoKey | null> {
  const { salt, nonce, outerNonce, content, guard } = sealed
  try {
    const inner = await crypto.subtle.decrypt(gcm(outerNonce), guard, content)
    const under = await keyOfPin(pin, salt)
    return await crypto.subtle.unwrapKey('pkcs8', inner, under, gcm(nonce), CURVE, false, ['sign'])
  } catch (error) {
    // What does not decrypt was sealed under another PIN.
    if (error instanceof Error && error.name === 'OperationError') return null
    throw error
  }
}

/** Signature of a text, in base64url. */
export async function signText(key: CryptoKey, text: string): Promise<string> {
  const bytes = await crypto.subtle.sign(BY, key, new TextEncoder().encode(text))
  return base64url.encode(new Uint8Array(bytes))
}
