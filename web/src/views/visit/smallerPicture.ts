/** Longest side that shows a nicked seat and still goes through a thin connection. */
const LONGEST = 1600
const QUALITY = 0.82

/** The size a picture is drawn at, never larger than it was. */
export function fitWithin(width: number, height: number, longest = LONGEST) {
  const part = Math.min(1, longest / Math.max(width, height))
  return { width: Math.round(width * part), height: Math.round(height * part) }
}

/** A picture as a JPEG of moderate size; null when the file is none. Where it was taken is not kept. */
export async function smallerPicture(file: Blob): Promise<Blob | null> {
  const picture = await createImageBitmap(file).catch(() => null)
  if (!picture) return null
  const { width, height } = fitWithin(picture.width, picture.height)
  const canvas = document.createElement('canvas')
  canvas.width = width
  canvas.height = height
  canvas.getContext('2d')?.drawImage(picture, 0, 0, width, height)
  picture.close()
  return new Promise((done) => canvas.toBlob(done, 'image/jpeg', QUALITY))
}
