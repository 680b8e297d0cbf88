import type { Compiled, Gather } from './compiled'
import { eliminate } from './eliminate'
import { FluidError } from './fluidError'

const MOST_ITERATIONS = 40
/** Newton has arrived when no pressure moves by more than this, kPa plus a part of the pressure. */
const ARRIVED_KPA = 1e-7
/** No pressure moves further than this in one iteration; keeps the square-root laws from overshooting. */
const LONGEST_MOVE_KPA = 400
/** Lowest gauge pressure a place can reach, kPa. */
const VACUUM_KPA = -101

/**
 * Newton on the mass balance of every volume at once: finds the pressures at which
 * mass(p) − base = duration · (what flows in). Owns its work space; a solution allocates nothing.
 */
export class BalanceSolver implements Gather {
  /** kg/s through each link, at the pressures last evaluated. */
  readonly flows: Float64Array
  private readonly n: number
  private readonly jacobian: Float64Array
  private readonly residual: Float64Array
  private duration = 0

  constructor(private readonly net: Compiled) {
    this.n = net.contents.length
    this.flows = new Float64Array(net.links.length)
    this.jacobian = new Float64Array(this.n * this.n)
    this.residual = new Float64Array(this.n)
  }

  flow(link: number, from: number, to: number, flow: number): void {
    this.flows[link] = flow
    const { residual, duration, n } = this
    if (from < n) residual[from] = (residual[from] as number) + duration * flow
    if (to >= 0 && to < n) residual[to] = (residual[to] as number) - duration * flow
  }

  slope(from: number, to: number, place: number, slope: number): void {
    const { jacobian, duration, n } = this
    if (place >= n) return
    if (from < n) {
      const at = from * n + place
      jacobian[at] = (jacobian[at] as number) + duration * slope
    }
    if (to >= 0 && to < n) {
      const at = to * n + place
      jacobian[at] = (jacobian[at] as number) - duration * slope
    }
  }

  /** Evaluates every link at the pressures; the net inflow of volume i is −residual[i] for duration 1. */
  evaluate(p: Float64Array): void {
    for (const link of this.net.links) link.evaluate(p, this)
  }

  /**
   * @param p pressures of all places; holds the guess before and the solution after
   * @param base mass above that at rest that each volume would have without flow, kg
   * @param duration s that the flow at the solution lasts
   * @returns whether Newton arrived
   * @throws FluidError naming the volume whose balance has no solution
   */
  solve(p: Float64Array, base: Float64Array, duration: number): boolean {
    const { n, jacobian, residual, net } = this
    this.duration = duration
    for (let iteration = 0; iteration < MOST_ITERATIONS; iteration++) {
      jacobian.fill(0)
      for (let i = 0; i < n; i++) {
        const content = net.contents[i] as (typeof net.contents)[number]
        residual[i] = content.mass(p[i] as number) - (base[i] as number)
        jacobian[i * n + i] = content.slope(p[i] as number)
      }
      this.evaluate(p)
      const stuck = eliminate(jacobian, residual, n)
      if (stuck >= 0) {
        throw new FluidError(net.volumeIds[stuck] as string, 'its mass balance has no solution')
      }
      // The step is shortened the more, the longer it takes: a limit cycle dies out.
      const damping = iteration < 15 ? 1 : iteration < 25 ? 0.5 : 0.25
      let arrived = true
      for (let i = 0; i < n; i++) {
        const wanted = -(residual[i] as number) * damping
        const move = Math.max(-LONGEST_MOVE_KPA, Math.min(LONGEST_MOVE_KPA, wanted))
        if (!(Math.abs(move) <= ARRIVED_KPA * (1 + Math.abs(p[i] as number)))) arrived = false
        p[i] = Math.max((p[i] as number) + move, VACUUM_KPA)
      }
      if (arrived) {
        this.duration = 0
        this.evaluate(p)
        return true
      }
    }
    return false
  }

  /** The volume with the greatest imbalance at the last iteration, for a message. */
  worst(): string {
    let at = 0
    for (let i = 1; i < this.n; i++) {
      if (Math.abs(this.residual[i] as number) > Math.abs(this.residual[at] as number)) at = i
    }
    return this.net.volumeIds[at] as string
  }
}
