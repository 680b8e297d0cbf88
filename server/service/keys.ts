import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import {
  calculateJwkThumbprint,
  CompactSign,
  exportJWK,
  generateKeyPair,
  importJWK,
  type JWK,
} from 'jose'
import type { DateTime } from 'luxon'
import type { Database } from '../store/database'

export interface SigningKeys {
  /** Signs bytes; the answer is a JWS in compact serialization. */
  readonly sign: (payload: Uint8Array) => Promise<string>
  /** All public keys ever used, newest last, so that old certificates verify for good. */
  readonly published: () => Promise<JWK[]>
}

/** The private key lives in a file that only the owner reads; public keys live in the database. */
export async function openKeys(
  dataDirectory: string,
  db: Pick<Database, 'signingKeys'>,
  now: () => DateTime<true>,
): Promise<SigningKeys> {
  const file = join(dataDirectory, 'keys', 'signing.json')
  if (!existsSync(file)) await makeKey(file)
  const privateJwk = JSON.parse(readFileSync(file, 'utf8')) as JWK & { kid: string }
  const { d: _, ...publicJwk } = privateJwk
  const [row] = await db.signingKeys.findOrCreate({
    where: { kid: privateJwk.kid },
    defaults: { kid: privateJwk.kid, publicJwk, createdAt: now().toJSDate() },
  })
  const key = await importJWK(privateJwk, 'EdDSA')
  return {
    sign: (payload) =>
      new CompactSign(payload)
        .setProtectedHeader({ alg: 'EdDSA', kid: row.kid, typ: 'uvanta-certificate+jws' })
        .sign(key),
    published: async () => {
      const rows = await db.signingKeys.findAll({ order: [['createdAt', 'ASC']] })
      return rows.map((r) => r.publicJwk as JWK)
    },
  }
}

async function makeKey(file: string): Promise<void> {
  const { privateKey } = await generateKeyPair('EdDSA', { crv: 'Ed25519', extractable: true })
  const jwk = await exportJWK(privateKey)
  const kid = await calculateJwkThumbprint(jwk)
  mkdirSync(join(file, '..'), { recursive: true, mode: 0o700 })
  writeFileSync(file, JSON.stringify({ ...jwk, kid, alg: 'EdDSA', use: 'sig' }), {
    mode: 0o600,
    flag: 'wx',
  })
}

/** Letters and digits that are not misread for each other. */
const READABLE = '23456789ABCDEFGHJKMNPQRSTVWXYZ'

/** A part of a code that cannot be guessed: 8 characters, about 39 bits. */
export function randomSuffix(): string {
  return [...randomBytes(8)].map((b) => READABLE[b % READABLE.length]).join('')
}
