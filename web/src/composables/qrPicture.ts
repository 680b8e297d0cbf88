import { toString as qrCode } from 'qrcode'

/** A text as a QR code, as the address of a picture. */
export const qrPicture = async (text: string): Promise<string> =>
  `data:image/svg+xml;utf8,${encodeURIComponent(await qrCode(text, { type: 'svg', margin: 1 }))}`
