/** The addresses under which the application of this stand-in is used. */
export interface OwnAddresses {
  /** As people and QR codes use it. */
  readonly publicUrl?: string | undefined
  /** On this machine itself. */
  readonly port?: string | undefined
}

/** Whether a page of that origin may talk to the gauge: one of the application’s own addresses, and no other program. */
export function mayConnect(origin: string | undefined, { publicUrl, port }: OwnAddresses): boolean {
  if (origin === undefined || !URL.canParse(origin)) return false
  const asked = new URL(origin)
  const isHere = ['127.0.0.1', 'localhost', '[::1]'].includes(asked.hostname)
  if (isHere && port !== undefined && asked.port === port) return true
  return publicUrl !== undefined && asked.origin === new URL(publicUrl).origin
}
