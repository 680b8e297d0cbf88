/**
 * A picture as it may be kept: what it shows, and nothing of what a camera or a program wrote beside that –
 * place, owner, device, a text, a second picture behind the end.
 * @returns null for what is no whole JPEG, PNG or WebP, whatever an upload says of itself
 */
export function cleanPicture(
  content: Buffer,
): { readonly mime: string; readonly content: Buffer } | null {
  for (const [mime, clean] of KINDS) {
    const cleaned = clean(content)
    if (cleaned) return { mime, content: cleaned }
  }
  return null
}

const KINDS = [
  ['image/jpeg', cleanJpeg],
  ['image/png', cleanPng],
  ['image/webp', cleanWebp],
] as const

/** Segments without which a JPEG shows something else: JFIF, the colour profile, Adobe’s colours. */
const APP_KEPT = [0xe0, 0xe2, 0xee]
const COMMENT = 0xfe
const isApp = (marker: number) => marker >= 0xe0 && marker <= 0xef

/** ITU T.81, annex B: marker segments, and the coded picture behind each start of scan. */
function cleanJpeg(content: Buffer): Buffer | null {
  if (content.length < 4 || content.readUInt16BE(0) !== 0xffd8) return null
  const kept: Uint8Array[] = [content.subarray(0, 2)]
  let at = 2
  while (at + 2 <= content.length) {
    if (content[at] !== 0xff) return null
    const marker = content[at + 1] as number
    if (marker === 0xd9) return Buffer.concat([...kept, content.subarray(at, at + 2)])
    if (at + 4 > content.length) return null
    const length = content.readUInt16BE(at + 2)
    const end = at + 2 + length
    if (length < 2 || end > content.length) return null
    const profile = content.subarray(at + 4, at + 15).toString('latin1') === 'ICC_PROFILE'
    const dropped =
      marker === COMMENT ||
      (isApp(marker) && (!APP_KEPT.includes(marker) || (marker === 0xe2 && !profile)))
    const next = marker === 0xda ? endOfScan(content, end) : end
    if (!dropped) kept.push(content.subarray(at, next))
    at = next
  }
  return null
}

/** The coded picture goes on until a marker that is neither a stuffed byte nor a restart. */
function endOfScan(content: Buffer, from: number): number {
  let at = from
  while (at + 1 < content.length) {
    const next = content[at + 1] as number
    if (content[at] === 0xff && next !== 0 && next !== 0xff && (next < 0xd0 || next > 0xd7))
      return at
    at++
  }
  return content.length
}

const PNG_START = Buffer.from('\x89PNG\r\n\x1a\n', 'latin1')
/** Chunks of PNG that say how it looks; every other that may be left out is left out. */
const PNG_KEPT = ['tRNS', 'gAMA', 'cHRM', 'sRGB', 'iCCP', 'sBIT', 'pHYs', 'bKGD']
/** A chunk whose name begins with a capital is needed to show the picture (PNG, 5.4). */
const isNeeded = (name: string) => /^[A-Z]/.test(name)

function cleanPng(content: Buffer): Buffer | null {
  if (!content.subarray(0, 8).equals(PNG_START)) return null
  const kept: Uint8Array[] = [PNG_START]
  let at = 8
  while (at + 12 <= content.length) {
    const end = at + 12 + content.readUInt32BE(at)
    if (end > content.length) return null
    const name = content.toString('latin1', at + 4, at + 8)
    if (isNeeded(name) || PNG_KEPT.includes(name)) kept.push(content.subarray(at, end))
    if (name === 'IEND') return Buffer.concat(kept)
    at = end
  }
  return null
}

/** Bits of a VP8X chunk that say that EXIF and XMP follow. */
const WEBP_META = 0b0000_1100

function cleanWebp(content: Buffer): Buffer | null {
  const riff = content.toString('latin1', 0, 4) + content.toString('latin1', 8, 12)
  if (riff !== 'RIFFWEBP') return null
  if (content.length < 12) return null
  const whole = 8 + content.readUInt32LE(4)
  if (whole > content.length) return null
  const kept: Uint8Array[] = []
  let at = 12
  while (at + 8 <= whole) {
    const size = content.readUInt32LE(at + 4)
    const end = at + 8 + size + (size % 2)
    if (end > whole) return null
    const name = content.toString('latin1', at, at + 4)
    const chunk = Buffer.from(content.subarray(at, end))
    if (name === 'VP8X') chunk[8] = (chunk[8] as number) & ~WEBP_META
    if (name !== 'EXIF' && name !== 'XMP ') kept.push(chunk)
    at = end
  }
  if (kept.length === 0) return null
  const body = Buffer.concat(kept)
  const head = Buffer.from(content.subarray(0, 12))
  head.writeUInt32LE(4 + body.length, 4)
  return Buffer.concat([head, body])
}
