/** What is wrong with a positioner and what it drives, in parts of the full travel. */
export interface PositionerState {
  /** Travel at no signal that should be none. */
  readonly zero: number
  /** Travel at full signal over what it should be, less the zero. */
  readonly span: number
  /** Signal that it takes to turn round: half of it on either side. */
  readonly deadBand: number
  /** The furthest that it can be moved. */
  readonly most: number
}

/**
 * Where a positioner moves to. It goes with its signal less its play: rising it stays behind by half
 * the dead band, falling it stays ahead by as much, which is what a stroke test reads as hysteresis.
 * @param before travel now, 1 being all of it
 * @param signal 0 … 1
 */
export function positionFor(
  before: number,
  signal: number,
  { zero, span, deadBand, most }: PositionerState,
): number {
  const wanted = zero + signal * (1 + span)
  const half = deadBand / 2
  const played = Math.min(Math.max(before, wanted - half), wanted + half)
  return Math.min(Math.max(played, 0), most)
}
