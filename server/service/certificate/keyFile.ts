import { existsSync } from 'node:fs'
import { ExplainedError } from '@uvanta/core/errors'
import {
  calculateJwkThumbprint,
  compactDecrypt,
  CompactEncrypt,
  exportJWK,
  generateKeyPair,
  type JWK,
} from 'jose'
import { readOrMake, replaceFile } from '../../store/keptFile'

export type PrivateKey = JWK & { readonly kid: string }

/** A passphrase becomes a key by PBKDF2 with SHA-512; as many rounds as OWASP recommends for it. */
const WRAP = 'PBES2-HS512+A256KW'
const ROUNDS = 220_000

/**
 * The private key that signs, from its file, made where there is none. With a passphrase the file is encrypted (JWE),
 * also one that was not so far.
 * @throws ExplainedError when the passphrase is missing or wrong
 */
export async function readSigningKey(file: string, passphrase?: string): Promise<PrivateKey> {
  const fresh = existsSync(file) ? '' : await asText(await newKey(), passphrase)
  const text = readOrMake(file, () => fresh)
  if (!text.startsWith('{')) return decrypted(text, passphrase)
  const key = JSON.parse(text) as PrivateKey
  if (passphrase) replaceFile(file, await asText(key, passphrase))
  return key
}

/** Takes a new key; the private half of the old one is gone. @returns the id of the new one */
export async function renewKeyFile(file: string, passphrase?: string): Promise<string> {
  const key = await newKey()
  replaceFile(file, await asText(key, passphrase))
  return key.kid
}

async function newKey(): Promise<PrivateKey> {
  const { privateKey } = await generateKeyPair('EdDSA', { crv: 'Ed25519', extractable: true })
  const jwk = await exportJWK(privateKey)
  return { ...jwk, kid: await calculateJwkThumbprint(jwk), alg: 'EdDSA', use: 'sig' }
}

async function asText(key: PrivateKey, passphrase?: string): Promise<string> {
  const text = JSON.stringify(key)
  if (!passphrase) return text
  return new CompactEncrypt(Buffer.from(text))
    .setProtectedHeader({ alg: WRAP, enc: 'A256GCM' })
    .setKeyManagementParameters({ p2c: ROUNDS })
    .encrypt(Buffer.from(passphrase))
}

async function decrypted(text: string, passphrase?: string): Promise<PrivateKey> {
  const refuse = (why: string) =>
    new ExplainedError('key-shut', why, 'Set UVANTA_KEYS_PASSPHRASE to its passphrase.')
  if (!passphrase) throw refuse('The key that signs is encrypted.')
  try {
    const { plaintext } = await compactDecrypt(text, Buffer.from(passphrase), {
      keyManagementAlgorithms: [WRAP],
      maxPBES2Count: ROUNDS,
    })
    return JSON.parse(Buffer.from(plaintext).toString()) as PrivateKey
  } catch {
    throw refuse('The key that signs does not open with this passphrase.')
  }
}
