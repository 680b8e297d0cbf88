import { crc32 } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { SMALLEST_PNG } from '../../testing/picture'
import { cleanPicture } from './cleanPicture'

const SECRET = 'Odda’s phone, 54.11 N 7.88 E'
const bytes = (...b: (number | string | Buffer)[]) =>
  Buffer.concat(b.map((x) => (typeof x === 'number' ? Buffer.from([x]) : Buffer.from(x as never))))

/** A segment of a JPEG. */
const segment = (marker: number, body: string | Buffer) => {
  const content = Buffer.from(body as never)
  const length = Buffer.alloc(2)
  length.writeUInt16BE(content.length + 2)
  return bytes(0xff, marker, length, content)
}
const scan = bytes(segment(0xda, 'how'), 1, 2, 0xff, 0, 3, 0xff, 0xd3, 4)
const jpeg = (...between: Buffer[]) =>
  bytes(0xff, 0xd8, segment(0xe0, 'JFIF'), ...between, segment(0xdb, 'table'), scan, 0xff, 0xd9)

/** A chunk of a PNG. */
const chunk = (name: string, body: string) => {
  const content = Buffer.from(name + body)
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)]
  length.writeUInt32BE(content.length - 4)
  sum.writeUInt32BE(crc32(content))
  return bytes(length, content, sum)
}
const end = SMALLEST_PNG.length - 12
const png = (...between: Buffer[]) =>
  bytes(SMALLEST_PNG.subarray(0, end), ...between, SMALLEST_PNG.subarray(end))

/** A part of a WebP. */
const part = (name: string, body: string | Buffer) => {
  const content = Buffer.from(body as never)
  const size = Buffer.alloc(4)
  size.writeUInt32LE(content.length)
  return bytes(name, size, content, ...(content.length % 2 ? [0] : []))
}
const webp = (flags: number, ...more: Buffer[]) => {
  const body = bytes(
    'WEBP',
    part('VP8X', bytes(flags, Buffer.alloc(9))),
    part('VP8 ', 'seen'),
    ...more,
  )
  const size = Buffer.alloc(4)
  size.writeUInt32LE(body.length)
  return bytes('RIFF', size, body)
}

describe('a picture that is kept', () => {
  it.each([
    ['image/jpeg', jpeg(segment(0xe1, `Exif ${SECRET}`), segment(0xfe, SECRET)), jpeg()],
    ['image/jpeg', jpeg(segment(0xe2, `MPF ${SECRET}`), segment(0xed, SECRET)), jpeg()],
    ['image/jpeg', bytes(jpeg(), SECRET, jpeg()), jpeg()],
    ['image/png', png(chunk('tEXt', SECRET), chunk('eXIf', SECRET)), png()],
    ['image/png', bytes(png(), SECRET), png()],
    ['image/webp', webp(0b1100, part('EXIF', SECRET), part('XMP ', SECRET)), webp(0)],
  ])('%s shows the same, and says nothing beside it', (mime, given, wanted) => {
    expect(given.includes(SECRET)).toBe(true)
    const cleaned = cleanPicture(given)
    expect(cleaned?.mime).toBe(mime)
    expect(cleaned?.content.equals(wanted)).toBe(true)
    expect(cleaned?.content.includes(SECRET)).toBe(false)
  })
  it('keeps its colours', () => {
    const profile = jpeg(segment(0xe2, 'ICC_PROFILE\0of the screen'), segment(0xee, 'Adobe'))
    expect(cleanPicture(profile)?.content.equals(profile)).toBe(true)
    const clear = png(chunk('pHYs', 'dots'))
    expect(cleanPicture(clear)?.content.equals(clear)).toBe(true)
  })
  it('cleaned once more is the same', () => {
    for (const one of [jpeg(segment(0xe1, SECRET)), png(chunk('tIME', 'now')), webp(0b1000)]) {
      const once = cleanPicture(one)?.content as Buffer
      expect(cleanPicture(once)?.content.equals(once)).toBe(true)
    }
  })
  it.each([
    ['nothing', Buffer.alloc(0)],
    ['a drawing that runs', Buffer.from('<svg onload="x"/>')],
    ['a JPEG that breaks off', jpeg().subarray(0, 9)],
    ['a JPEG without an end', jpeg().subarray(0, -2)],
    ['a PNG that breaks off', SMALLEST_PNG.subarray(0, 40)],
    ['a PNG whose chunk is longer than it', png().fill(0xff, 8, 12)],
    ['a WebP that promises more', webp(0).fill(0xff, 4, 8)],
  ])('is not %s', (_, content) => {
    expect(cleanPicture(content)).toBeNull()
  })
  it('is never read beyond its end, however it is cut or spoilt', () => {
    for (const whole of [jpeg(segment(0xe1, SECRET)), png(chunk('tEXt', SECRET)), webp(0b1100)]) {
      for (let n = 0; n < whole.length; n++) {
        expect(() => cleanPicture(whole.subarray(0, n))).not.toThrow()
        const spoilt = Buffer.from(whole)
        spoilt[n] = 0xff
        expect(() => cleanPicture(spoilt)).not.toThrow()
      }
    }
  })
})
