import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import { type KeyPlace, randomKey } from '../certificate/keys'

/** Keeps short secrets in the database unreadable to whoever has the database alone. */
export interface SecretBox {
  /** @param about whose secret it is: shut for one, it opens for nobody else */
  readonly shut: (secret: string, about: string) => string
  /** @throws Error when it was shut with another key, for somebody else, or was changed */
  readonly open: (shut: string, about: string) => string
}

const CIPHER = 'aes-256-gcm'
const IV_BYTES = 12
const TAG_BYTES = 16

/** A box whose key lies in the data directory, beside those of the record. AES-256-GCM. */
export async function openSecretBox(place: KeyPlace): Promise<SecretBox> {
  const key = Buffer.from(await randomKey(place, 'secrets'), 'hex')
  return {
    shut(secret, about) {
      const iv = randomBytes(IV_BYTES)
      const cipher = createCipheriv(CIPHER, key, iv).setAAD(Buffer.from(about))
      const text = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()])
      return Buffer.concat([iv, cipher.getAuthTag(), text]).toString('base64url')
    },
    open(shut, about) {
      const bytes = Buffer.from(shut, 'base64url')
      const decipher = createDecipheriv(CIPHER, key, bytes.subarray(0, IV_BYTES), {
        authTagLength: TAG_BYTES,
      })
        .setAAD(Buffer.from(about))
        .setAuthTag(bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES))
      return `${decipher.update(bytes.subarray(IV_BYTES + TAG_BYTES), undefined, 'utf8')}${decipher.final('utf8')}`
    },
  }
}
