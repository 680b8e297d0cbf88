import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import type { Request, Response } from 'express'

interface Packed {
  readonly etag: string
  readonly br: Buffer
  readonly gzip: Buffer
  readonly plain: Buffer
}

/** Parts of the library, each packed once for all who ask: together they are a megabyte and a half of text. */
const packed = new WeakMap<object, Promise<Packed>>()

async function pack(part: object): Promise<Packed> {
  const plain = Buffer.from(JSON.stringify(part))
  const quality = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }
  // Off the thread that answers everybody else.
  const [br, zipped] = await Promise.all([
    promisify(brotliCompress)(plain, quality),
    promisify(gzip)(plain),
  ])
  const etag = `"${createHash('sha256').update(plain).digest('base64url')}"`
  return { etag, br, gzip: zipped, plain }
}

/**
 * Answers with a part of the library, or that it is as it was.
 * @param of what the part belongs to, the same as long as it is in force
 * @param part made when it is asked for the first time
 */
export async function sendPacked(
  of: object,
  part: () => object,
  req: Request,
  res: Response,
): Promise<void> {
  const known = packed.get(of) ?? pack(part())
  packed.set(of, known)
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
