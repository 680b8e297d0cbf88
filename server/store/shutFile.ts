import { existsSync } from 'node:fs'
import { ExplainedError } from '@uvanta/core/errors'
import { compactDecrypt, CompactEncrypt } from 'jose'
import { readOrMake, replaceFile } from './keptFile'

/** A passphrase becomes a key by PBKDF2 with SHA-512; as many rounds as OWASP recommends for it. */
const WRAP = 'PBES2-HS512+A256KW'
const ROUNDS = 220_000
/** How a JWE in compact serialization begins; nothing that we keep in the open begins so. */
const SHUT = 'eyJ'

/** A secret in a file, and the passphrase under which it is kept, if under any. */
export interface SecretFile {
  readonly file: string
  readonly passphrase?: string | undefined
}

/**
 * A secret from its file, made where there is none. With a passphrase the file is encrypted (JWE), also one that was
 * not so far.
 * @throws ExplainedError when the passphrase is missing or wrong
 */
export async function readSecret(
  { file, passphrase }: SecretFile,
  make: () => Promise<string> | string,
): Promise<string> {
  const fresh = existsSync(file) ? '' : await shut(await make(), passphrase)
  const text = readOrMake(file, () => fresh)
  if (text.startsWith(SHUT)) return opened(text, passphrase)
  if (passphrase) replaceFile(file, await shut(text, passphrase))
  return text
}

/** Puts another secret in the place of the one that was there. */
export async function replaceSecret(
  { file, passphrase }: SecretFile,
  secret: string,
): Promise<void> {
  replaceFile(file, await shut(secret, passphrase))
}

async function shut(text: string, passphrase?: string): Promise<string> {
  if (!passphrase) return text
  return new CompactEncrypt(Buffer.from(text))
    .setProtectedHeader({ alg: WRAP, enc: 'A256GCM' })
    .setKeyManagementParameters({ p2c: ROUNDS })
    .encrypt(Buffer.from(passphrase))
}

async function opened(text: string, passphrase?: string): Promise<string> {
  const refuse = (why: string) =>
    new ExplainedError('key-shut', why, 'Set UVANTA_KEYS_PASSPHRASE to their passphrase.')
  if (!passphrase) throw refuse('The keys are encrypted.')
  try {
    const { plaintext } = await compactDecrypt(text, Buffer.from(passphrase), {
      keyManagementAlgorithms: [WRAP],
      maxPBES2Count: ROUNDS,
    })
    return Buffer.from(plaintext).toString()
  } catch {
    throw refuse('The keys do not open with this passphrase.')
  }
}
