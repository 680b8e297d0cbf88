/** A network that cannot be computed; `element` is the one to mend. */
export class FluidError extends Error {
  constructor(
    readonly element: string,
    why: string,
  ) {
    super(`${element}: ${why}`)
    this.name = 'FluidError'
  }
}
