import { calculateJwkThumbprint, exportJWK, generateKeyPair, type JWK } from 'jose'
import { readSecret, replaceSecret, type SecretFile } from '../../store/shutFile'

export type PrivateKey = JWK & { readonly kid: string }

/**
 * The private key that signs, from its file, made where there is none.
 * @throws ExplainedError when the passphrase of the file is missing or wrong
 */
export const readSigningKey = async (at: SecretFile): Promise<PrivateKey> =>
  JSON.parse(await readSecret(at, async () => JSON.stringify(await newKey()))) as PrivateKey

/** Takes a new key; the private half of the old one is gone. @returns the id of the new one */
export async function renewKeyFile(at: SecretFile): Promise<string> {
  const key = await newKey()
  await replaceSecret(at, JSON.stringify(key))
  return key.kid
}

async function newKey(): Promise<PrivateKey> {
  const { privateKey } = await generateKeyPair('EdDSA', { crv: 'Ed25519', extractable: true })
  const jwk = await exportJWK(privateKey)
  return { ...jwk, kid: await calculateJwkThumbprint(jwk), alg: 'EdDSA', use: 'sig' }
}
