import { createHmac, randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import {
  calculateJwkThumbprint,
  CompactSign,
  compactVerify,
  createLocalJWKSet,
  exportJWK,
  generateKeyPair,
  importJWK,
  type JWK,
} from 'jose'
import type { DateTime } from 'luxon'
import type { Database } from '../../store/database'

/** Kinds of documents that are signed: one never passes for another. */
const TYPES = { certificate: 'uvanta-certificate+jws', head: 'uvanta-head+jws' } as const
type Signed = keyof typeof TYPES

export interface SigningKeys {
  /** Signs bytes as one kind of document; the answer is a JWS in compact serialization. */
  readonly sign: (payload: Uint8Array, as?: Signed) => Promise<string>
  /** What a JWS of ours says; null for one that no key of ours has signed, or not as this kind. */
  readonly verify: (jws: string, as?: Signed) => Promise<Uint8Array | null>
  /** All public keys ever used, newest last, so that old certificates verify for good. */
  readonly published: () => JWK[]
  /** HMAC-SHA256 of words under the key of this installation and of this kind of record. */
  readonly seal: (kind: string, words: string) => string
  /** Whether what stood before there were seals has been sealed. */
  readonly sealedOnce: () => boolean
  readonly rememberSealed: () => void
}

const ALGORITHM = 'EdDSA'

/**
 * Keys live in files that only the owner reads: the private one, the public ones ever used, and that
 * of the seals. What the database lists of keys is a copy, and believed in nothing.
 */
export async function openKeys(
  dataDirectory: string,
  db: Pick<Database, 'signingKeys'>,
  now: () => DateTime<true>,
): Promise<SigningKeys> {
  const home = join(dataDirectory, 'keys')
  const file = signingFile(dataDirectory)
  if (!existsSync(file)) await makeKey(file)
  const privateJwk = JSON.parse(readFileSync(file, 'utf8')) as JWK & { kid: string }
  const { d: _, ...publicJwk } = privateJwk
  await db.signingKeys.findOrCreate({
    where: { kid: privateJwk.kid },
    defaults: { kid: privateJwk.kid, publicJwk, createdAt: now().toJSDate() },
  })
  const trusted = await trustedKeys(join(home, 'trusted.json'), publicJwk, db)
  const key = await importJWK(privateJwk, ALGORITHM)
  const lookup = createLocalJWKSet({ keys: trusted })
  const sealKey = readOrMake(join(home, 'seal'), () => randomBytes(32).toString('hex'))
  const mark = join(home, 'sealed')
  return {
    sign: (payload, as = 'certificate') =>
      new CompactSign(payload)
        .setProtectedHeader({ alg: ALGORITHM, kid: privateJwk.kid, typ: TYPES[as] })
        .sign(key),
    verify: (jws, as = 'certificate') =>
      compactVerify(jws, lookup, { algorithms: [ALGORITHM] }).then(
        ({ payload, protectedHeader }) => (protectedHeader.typ === TYPES[as] ? payload : null),
        () => null,
      ),
    published: () => trusted,
    seal: (kind, words) => createHmac('sha256', `${kind} ${sealKey}`).update(words).digest('hex'),
    sealedOnce: () => existsSync(mark),
    rememberSealed: () => void readOrMake(mark, () => now().toISO()),
  }
}

/**
 * Takes a new key for what is signed from now on. What the old one signed verifies for good, since its public
 * half stays published; its private half is gone. A process that runs goes on with the old one until it ends.
 * @returns the id of the new key
 */
export async function renewSigningKey(dataDirectory: string): Promise<string> {
  const file = signingFile(dataDirectory)
  const next = `${file}.next`
  rmSync(next, { force: true })
  const kid = await makeKey(next)
  renameSync(next, file)
  return kid
}

const signingFile = (dataDirectory: string) => join(dataDirectory, 'keys', 'signing.json')

function readOrMake(file: string, make: () => string): string {
  if (!existsSync(file)) writeFileSync(file, make(), { mode: 0o600, flag: 'wx' })
  return readFileSync(file, 'utf8').trim()
}

/** The public keys ever used; an installation from before this file takes them over from its database once. */
async function trustedKeys(
  file: string,
  own: JWK & { kid: string },
  db: Pick<Database, 'signingKeys'>,
): Promise<JWK[]> {
  if (!existsSync(file)) {
    const rows = await db.signingKeys.findAll({ order: [['createdAt', 'ASC']] })
    writeFileSync(file, JSON.stringify(rows.map((r) => r.publicJwk)), { mode: 0o600 })
  }
  const keys = JSON.parse(readFileSync(file, 'utf8')) as JWK[]
  if (keys.some((k) => k.kid === own.kid)) return keys
  writeFileSync(file, JSON.stringify([...keys, own]), { mode: 0o600 })
  return [...keys, own]
}

async function makeKey(file: string): Promise<string> {
  const { privateKey } = await generateKeyPair('EdDSA', { crv: 'Ed25519', extractable: true })
  const jwk = await exportJWK(privateKey)
  const kid = await calculateJwkThumbprint(jwk)
  mkdirSync(join(file, '..'), { recursive: true, mode: 0o700 })
  writeFileSync(file, JSON.stringify({ ...jwk, kid, alg: 'EdDSA', use: 'sig' }), {
    mode: 0o600,
    flag: 'wx',
  })
  return kid
}

/** Letters and digits that are not misread for each other. */
const READABLE = '23456789ABCDEFGHJKMNPQRSTVWXYZ'

/** A part of a code that cannot be guessed: 8 characters, about 39 bits. */
export function randomSuffix(): string {
  return [...randomBytes(8)].map((b) => READABLE[b % READABLE.length]).join('')
}
