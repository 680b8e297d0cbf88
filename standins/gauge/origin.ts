/**
 * Whether a page of that origin may talk to the gauge: one of this machine, or of the address that
 * people use. A program that is no browser says none.
 */
export function mayConnect(origin: string | undefined, publicUrl: string | undefined): boolean {
  if (origin === undefined) return true
  try {
    const { hostname, origin: asked } = new URL(origin)
    if (['127.0.0.1', 'localhost', '[::1]'].includes(hostname)) return true
    return publicUrl !== undefined && asked === new URL(publicUrl).origin
  } catch {
    return false
  }
}
