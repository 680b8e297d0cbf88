import { createReadStream, createWriteStream } from 'node:fs'
import { rm } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import { Decrypter, Encrypter } from 'age-encryption'

/**
 * Encrypts a file under a passphrase, piece by piece, in the format of age: whatever reads that format opens it
 * without us. @param to is for its owner alone
 */
export async function encryptFile(from: string, to: string, passphrase: string): Promise<void> {
  const encrypter = new Encrypter()
  encrypter.setPassphrase(passphrase)
  const shut = await encrypter.encrypt(read(from))
  await write(shut, to)
}

/** @returns whether it could be opened: the passphrase is right and nothing of the file was changed */
export async function decryptFile(from: string, to: string, passphrase: string): Promise<boolean> {
  const decrypter = new Decrypter()
  decrypter.addPassphrase(passphrase)
  try {
    const opened = await decrypter.decrypt(read(from))
    await write(opened, to)
    return true
  } catch {
    // What came out before the damage was met is nothing to go on with.
    await rm(to, { force: true })
    return false
  }
}

type Bytes = globalThis.ReadableStream<Uint8Array>

const read = (file: string) => Readable.toWeb(createReadStream(file)) as Bytes
const write = (stream: Bytes, to: string): Promise<void> =>
  pipeline(Readable.fromWeb(stream as ReadableStream), createWriteStream(to, { mode: 0o600 }))
