import { createHmac, randomBytes } from 'node:crypto'
import { appendFileSync, existsSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { CompactSign, compactVerify, createLocalJWKSet, importJWK, type JWK } from 'jose'
import type { DateTime } from 'luxon'
import type { Config } from '../../config'
import type { Database } from '../../store/database'
import { readOrMake, replaceFile } from '../../store/keptFile'
import { readSecret, type SecretFile } from '../../store/shutFile'
import { readSigningKey, renewKeyFile } from './keyFile'

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
  /** The kinds of rows of which what stood before has been sealed, so that nobody has it done again. */
  readonly sealedKinds: () => readonly string[]
  readonly rememberKinds: (kinds: readonly string[]) => void
}

const ALGORITHM = 'EdDSA'

/** Where the keys lie, and what they are encrypted with, if with anything. */
export type KeyPlace = Pick<Config, 'dataDirectory' | 'keysPassphrase'>

/**
 * Keys live in files that only the owner reads: the private one, the public ones ever used, and that
 * of the seals. What the database lists of keys is a copy, and believed in nothing.
 */
export async function openKeys(
  place: KeyPlace,
  db: Pick<Database, 'signingKeys'>,
  now: () => DateTime<true>,
): Promise<SigningKeys> {
  const home = join(place.dataDirectory, 'keys')
  const privateJwk = await signingKeyIn(place)
  const { d: _, ...publicJwk } = privateJwk
  await db.signingKeys.findOrCreate({
    where: { kid: privateJwk.kid },
    defaults: { kid: privateJwk.kid, publicJwk, createdAt: now().toJSDate() },
  })
  const trusted = await trustedKeys(join(home, 'trusted.json'), publicJwk, db)
  const key = await importJWK(privateJwk, ALGORITHM)
  const sealKey = await randomKey(place, 'seal')
  const mark = join(home, 'sealed')
  return {
    sign: (payload, as = 'certificate') =>
      new CompactSign(payload)
        .setProtectedHeader({ alg: ALGORITHM, kid: privateJwk.kid, typ: TYPES[as] })
        .sign(key),
    verify: (jws, as = 'certificate') =>
      compactVerify(jws, trusted().lookup, { algorithms: [ALGORITHM] }).then(
        ({ payload, protectedHeader }) => (protectedHeader.typ === TYPES[as] ? payload : null),
        () => null,
      ),
    published: () => trusted().keys,
    seal: (kind, words) => createHmac('sha256', `${kind} ${sealKey}`).update(words).digest('hex'),
    sealedOnce: () => existsSync(mark),
    rememberSealed: () => void readOrMake(mark, () => now().toISO()),
    // The first line of the file is when the first seals were made.
    sealedKinds: () =>
      existsSync(mark) ? readFileSync(mark, 'utf8').split('\n').slice(1).filter(Boolean) : [],
    rememberKinds: (kinds) => appendFileSync(mark, kinds.map((k) => `\n${k}`).join('')),
  }
}

/**
 * Takes a new key for what is signed from now on. What the old one signed verifies for good, since its public
 * half stays published; its private half is gone. A process that runs goes on with the old one until it ends.
 * @returns the id of the new key
 */
export const renewSigningKey = (place: KeyPlace): Promise<string> =>
  renewKeyFile(keyIn(place, 'signing.json'))

/** The private key that signs, where it lies. */
export const signingKeyIn = (place: KeyPlace) => readSigningKey(keyIn(place, 'signing.json'))

const keyIn = ({ dataDirectory, keysPassphrase }: KeyPlace, name: string): SecretFile => ({
  file: join(dataDirectory, 'keys', name),
  passphrase: keysPassphrase,
})

/** A key of 256 random bits, in hexadecimal, made where there is none. */
export const randomKey = (place: KeyPlace, name: string): Promise<string> =>
  readSecret(keyIn(place, name), () => randomBytes(32).toString('hex'))

/**
 * The public keys ever used, as the file has them now: another process may have taken a new key meanwhile, and what
 * that one signs is as genuine here. An installation from before this file takes them over from its database once.
 */
async function trustedKeys(
  file: string,
  own: JWK & { kid: string },
  db: Pick<Database, 'signingKeys'>,
): Promise<() => Trusted> {
  const rows = existsSync(file)
    ? []
    : await db.signingKeys.findAll({ order: [['createdAt', 'ASC']] })
  const keys = JSON.parse(
    readOrMake(file, () => JSON.stringify(rows.map((r) => r.publicJwk))),
  ) as JWK[]
  if (!keys.some((k) => k.kid === own.kid)) replaceFile(file, JSON.stringify([...keys, own]))
  const read = (at: number): Trusted => {
    const known = JSON.parse(readFileSync(file, 'utf8')) as JWK[]
    return { at, keys: known, lookup: createLocalJWKSet({ keys: known }) }
  }
  const written = () => statSync(file).mtimeMs
  let trusted = read(written())
  return () => {
    const at = written()
    if (at !== trusted.at) trusted = read(at)
    return trusted
  }
}

interface Trusted {
  /** When the file was written that they were read from, ms. */
  readonly at: number
  readonly keys: JWK[]
  readonly lookup: ReturnType<typeof createLocalJWKSet>
}

/** Letters and digits that are not misread for each other. */
const READABLE = '23456789ABCDEFGHJKMNPQRSTVWXYZ'

/** A part of a code that cannot be guessed: 8 characters, about 39 bits. */
export function randomSuffix(): string {
  return [...randomBytes(8)].map((b) => READABLE[b % READABLE.length]).join('')
}
