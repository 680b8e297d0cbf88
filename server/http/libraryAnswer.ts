import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import type { Library } from '@uvanta/core/library'
import type { Request, Response } from 'express'

interface Packed {
  readonly etag: string
  readonly br: Buffer
  readonly gzip: Buffer
  readonly plain: Buffer
}

/** The library in force, packed once for all who ask: it is a third of a megabyte of text. */
const packed = new WeakMap<Library, Promise<Packed>>()

async function pack(library: Library): Promise<Packed> {
  const plain = Buffer.from(JSON.stringify(library))
  const quality = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }
  // Off the thread that answers everybody else.
  const [br, zipped] = await Promise.all([
    promisify(brotliCompress)(plain, quality),
    promisify(gzip)(plain),
  ])
  const etag = `"${createHash('sha256').update(plain).digest('base64url')}"`
  return { etag, br, gzip: zipped, plain }
}

/** Answers with the library, or that it is as it was. */
export async function sendLibrary(library: Library, req: Request, res: Response): Promise<void> {
  const known = packed.get(library) ?? pack(library)
  packed.set(library, known)
  const { etag, ...forms } = await known
  res.setHeader('Cache-Control', 'private, no-cache')
  res.setHeader('ETag', etag)
  res.vary('Accept-Encoding')
  if (req.fresh) return void res.status(304).end()
  // A browser names the smaller one last.
  const taken = req.acceptsEncodings()
  const encoding = (['br', 'gzip'] as const).find((e) => taken.includes(e)) ?? 'plain'
  if (encoding !== 'plain') res.setHeader('Content-Encoding', encoding)
  res.type('application/json').send(forms[encoding])
}
