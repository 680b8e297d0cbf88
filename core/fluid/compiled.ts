import { type Content, contentOf } from './content'
import type { Check, Demand, Link, Network, Relief, Valve } from './elements'
import { lift, liftSlope, Passage, type PassageLaw, passageLaw } from './laws'
import { GRAVITY, gasDensityPerKpa, ATMOSPHERE_KPA } from './medium'

/** Demand fades under this pressure, so that it cannot draw a vacuum. */
const DEMAND_FADES_KPA = 20

/** Where the solver gathers a link’s flow and its derivatives by the pressure of a place. */
export interface Gather {
  /** Adds to the balance: `flow` kg/s leaves `from` and arrives at `to`. */
  flow(link: number, from: number, to: number, flow: number): void
  /** The derivative of that flow by the pressure of `place`. */
  slope(from: number, to: number, place: number, slope: number): void
}

/** A link bound to the indices of its places. Places 0 … n−1 are volumes, above them reservoirs. */
export abstract class BoundLink {
  protected constructor(
    readonly index: number,
    readonly id: string,
    readonly from: number,
    readonly to: number,
    protected readonly head: number,
  ) {}
  abstract evaluate(p: Float64Array, gather: Gather): void
  /** Takes what it remembers from the pressures at the end of a step. */
  settle(_p: Float64Array): void {}
}

const passage = new Passage()

export class BoundValve extends BoundLink {
  private cv = 0
  constructor(
    private readonly valve: Valve,
    index: number,
    from: number,
    to: number,
    head: number,
    private readonly law: PassageLaw,
  ) {
    super(index, valve.id, from, to, head)
    this.open(valve.opening)
  }
  open(opening: number): void {
    const leak = this.valve.leakCv ?? 0
    this.cv = leak + (Math.max(this.valve.cv, leak) - leak) * opening
  }
  evaluate(p: Float64Array, gather: Gather): void {
    if (this.cv === 0) return gather.flow(this.index, this.from, this.to, 0)
    this.law(passage, this.cv, p[this.from] as number, p[this.to] as number, this.head)
    gather.flow(this.index, this.from, this.to, passage.flow)
    gather.slope(this.from, this.to, this.from, passage.byFrom)
    gather.slope(this.from, this.to, this.to, passage.byTo)
  }
}

class BoundCheck extends BoundLink {
  constructor(
    private readonly check: Check,
    index: number,
    from: number,
    to: number,
    head: number,
    private readonly law: PassageLaw,
  ) {
    super(index, check.id, from, to, head)
  }
  evaluate(p: Float64Array, gather: Gather): void {
    const { cv, loadKpa, fullLiftKpa, leakCv = 0 } = this.check
    const from = p[this.from] as number
    const to = p[this.to] as number
    const demanded = (from - to + this.head - loadKpa) / fullLiftKpa
    const open = leakCv + cv * lift(demanded)
    if (open === 0) return gather.flow(this.index, this.from, this.to, 0)
    this.law(passage, open, from, to, this.head)
    const byLift = (passage.byCv * cv * liftSlope(demanded)) / fullLiftKpa
    gather.flow(this.index, this.from, this.to, passage.flow)
    gather.slope(this.from, this.to, this.from, passage.byFrom + byLift)
    gather.slope(this.from, this.to, this.to, passage.byTo - byLift)
  }
}

export class BoundRelief extends BoundLink {
  /** Differential under which it opens, kPa; an adjuster changes it. */
  opensBelowKpa: number
  /** Lift at the end of the last step: the diaphragm stays where it is within the hysteresis. */
  held = 0
  constructor(
    private readonly relief: Relief,
    index: number,
    from: number,
    to: number,
    head: number,
    private readonly law: PassageLaw,
    private readonly senseHigh: number,
    private readonly senseLow: number,
  ) {
    super(index, relief.id, from, to, head)
    this.opensBelowKpa = relief.opensBelowKpa
  }
  private demanded(p: Float64Array): { lift: number; slope: number } {
    const { fullLiftKpa, hysteresisKpa } = this.relief
    const differential = (p[this.senseHigh] as number) - (p[this.senseLow] as number)
    const opening = (this.opensBelowKpa - differential) / fullLiftKpa
    const low = lift(opening)
    if (low >= this.held) return { lift: low, slope: -liftSlope(opening) / fullLiftKpa }
    const shutting = opening + hysteresisKpa / fullLiftKpa
    const high = lift(shutting)
    if (high <= this.held) return { lift: high, slope: -liftSlope(shutting) / fullLiftKpa }
    return { lift: this.held, slope: 0 }
  }
  evaluate(p: Float64Array, gather: Gather): void {
    const { cv, leakCv = 0 } = this.relief
    const demanded = this.demanded(p)
    const open = leakCv + cv * demanded.lift
    this.law(passage, open, p[this.from] as number, p[this.to] as number, this.head)
    const byDifferential = passage.byCv * cv * demanded.slope
    gather.flow(this.index, this.from, this.to, passage.flow)
    gather.slope(this.from, this.to, this.from, passage.byFrom)
    gather.slope(this.from, this.to, this.to, passage.byTo)
    gather.slope(this.from, this.to, this.senseHigh, byDifferential)
    gather.slope(this.from, this.to, this.senseLow, -byDifferential)
  }
  override settle(p: Float64Array): void {
    this.held = this.demanded(p).lift
  }
}

export class BoundDemand extends BoundLink {
  /** m³/s */
  draw: number
  constructor(
    demand: Demand,
    index: number,
    from: number,
    private readonly density: (p: number) => number,
    private readonly densitySlope: number,
  ) {
    super(index, demand.id, from, -1, 0)
    this.draw = demand.flow
  }
  evaluate(p: Float64Array, gather: Gather): void {
    const pressure = p[this.from] as number
    const part = Math.min(Math.max(pressure / DEMAND_FADES_KPA, 0), 1)
    const density = this.density(pressure)
    const fading = part > 0 && part < 1 ? 1 / DEMAND_FADES_KPA : 0
    gather.flow(this.index, this.from, -1, this.draw * part * density)
    const slope = this.draw * (fading * density + part * this.densitySlope)
    gather.slope(this.from, -1, this.from, slope)
  }
}

/** A network as the solver works with it: places by number. */
export interface Compiled {
  readonly volumeIds: readonly string[]
  readonly contents: readonly Content[]
  readonly links: readonly BoundLink[]
  /** Pressures of all places at the start, kPa: volumes, then reservoirs. */
  readonly start: Float64Array
  readonly placeIndex: ReadonlyMap<string, number>
}

/** Binds a valid network to numbers. */
export function compile(network: Network): Compiled {
  const { medium, volumes, reservoirs } = network
  const places = [...volumes, ...reservoirs]
  const placeIndex = new Map(places.map((place, n) => [place.id, n]))
  const law = passageLaw(medium)
  // Columns of gas at these pressures weigh next to nothing: heads count for water only.
  const perMetre = medium.kind === 'water' ? (medium.density * GRAVITY) / 1000 : 0
  const at = (id: string) => placeIndex.get(id) as number
  const elevation = (id: string) => places[at(id)]?.elevationM ?? 0
  const bind = (link: Link, index: number): BoundLink => {
    if (link.type === 'demand') {
      const perKpa = medium.kind === 'gas' ? gasDensityPerKpa(medium) : 0
      const density =
        medium.kind === 'water'
          ? () => medium.density
          : (p: number) => perKpa * (p + ATMOSPHERE_KPA)
      return new BoundDemand(link, index, at(link.from), density, perKpa)
    }
    const head = perMetre * (elevation(link.from) - elevation(link.to))
    const ends = [index, at(link.from), at(link.to), head, law] as const
    if (link.type === 'valve') return new BoundValve(link, ...ends)
    if (link.type === 'check') return new BoundCheck(link, ...ends)
    return new BoundRelief(link, ...ends, at(link.senseHigh), at(link.senseLow))
  }
  return {
    volumeIds: volumes.map((v) => v.id),
    contents: volumes.map((v) => contentOf(v, medium)),
    links: network.links.map(bind),
    start: Float64Array.from([
      ...volumes.map((v) => v.startKpa ?? 0),
      ...reservoirs.map((r) => r.pressureKpa),
    ]),
    placeIndex,
  }
}
