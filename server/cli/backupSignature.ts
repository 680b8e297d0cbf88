import { createHash } from 'node:crypto'
import { createReadStream, existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import {
  calculateJwkThumbprint,
  compactVerify,
  CompactSign,
  decodeProtectedHeader,
  importJWK,
  type JWK,
} from 'jose'
import { type KeyPlace, signingKeyIn } from '../service/certificate/keys'

const ALGORITHM = 'EdDSA'
const TYPE = 'uvanta-backup'
const SIGNATURE = 'signature'

/** SHA-256 of every file of a backup, by its name. */
async function filesOf(directory: string): Promise<Record<string, string>> {
  const names = readdirSync(directory, { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile() && f.name !== SIGNATURE)
    .map((f) => join(f.parentPath, f.name).slice(directory.length + 1))
    .sort()
  const files: Record<string, string> = {}
  for (const name of names) {
    const hash = createHash('sha256')
    await pipeline(createReadStream(join(directory, name)), hash)
    files[name] = hash.digest('hex')
  }
  return files
}

/** Signs the files of a backup with the key of the installation. @returns the id of the key */
export async function signBackup(directory: string, place: KeyPlace): Promise<string> {
  const key = await signingKeyIn(place)
  const text = new TextEncoder().encode(JSON.stringify(await filesOf(directory)))
  const jws = await new CompactSign(text)
    .setProtectedHeader({ alg: ALGORITHM, kid: key.kid, typ: TYPE })
    .sign(await importJWK(key, ALGORITHM))
  writeFileSync(join(directory, SIGNATURE), jws, { mode: 0o600 })
  return key.kid
}

const keysIn = (file: string): JWK[] =>
  existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as JWK[]) : []

/**
 * Why a backup is not to be read in: it is not signed, by somebody who is not known here, or is not what was signed.
 * @param trusted file of the public keys that this installation has ever used
 * @param signedBy id of a key that the operator trusts; `none` to accept a backup without a signature
 * @returns null when it may be read
 */
export async function backupFault(
  directory: string,
  trusted: string,
  signedBy: string,
): Promise<string | null> {
  const file = join(directory, SIGNATURE)
  if (!existsSync(file))
    return signedBy === 'none'
      ? null
      : 'This backup is not signed. If it was written by an earlier version, and you know where it has been since, say --signed-by none.'
  const jws = readFileSync(file, 'utf8')
  const kid = kidOf(jws)
  const own = keysIn(trusted).find((k) => k.kid === kid)
  const named =
    kid === signedBy
      ? keysIn(join(directory, 'keys', 'trusted.json')).find((k) => k.kid === kid)
      : undefined
  const key = own ?? named
  if (!key || !kid || (await calculateJwkThumbprint(key)) !== kid)
    return `This backup is signed with the key ${kid}, which is not known here. Compare it with what ./uvanta backup said when it was written. If it is the same, say --signed-by ${kid}.`
  const said = await compactVerify(jws, await importJWK(key, ALGORITHM), {
    algorithms: [ALGORITHM],
  }).then(
    ({ payload, protectedHeader }) =>
      protectedHeader.typ === TYPE ? new TextDecoder().decode(payload) : null,
    () => null,
  )
  return said === JSON.stringify(await filesOf(directory))
    ? null
    : 'This backup is damaged, or was changed after it was signed.'
}

function kidOf(jws: string): string {
  try {
    return decodeProtectedHeader(jws).kid ?? ''
  } catch {
    return ''
  }
}
