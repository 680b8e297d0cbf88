import { BoundDemand, BoundRelief, BoundValve, type Compiled, compile } from './compiled'
import type { Network } from './elements'
import { FluidError } from './fluidError'
import { BalanceSolver } from './solver'
import { validateNetwork } from './validate'

/** Diagonal of the two-stage, second-order, L-stable implicit Runge–Kutta method (Alexander 1977). */
const GAMMA = 1 - Math.SQRT1_2
/** A step is kept when no pressure strays further than this from where the last slope led. */
const STRAY_KPA = 0.15
const STRAY_PART = 0.003
const SHORTEST_S = 1e-8
const LONGEST_S = 5
const MOST_STEPS = 200_000

/**
 * A network in time. Mass is the state that is carried on, so that it is conserved to rounding;
 * pressures are what Newton finds to it.
 */
export class FluidModel {
  private readonly net: Compiled
  private readonly solver: BalanceSolver
  private readonly p: Float64Array
  private readonly mass: Float64Array
  private readonly slope: Float64Array
  private readonly first: Float64Array
  private readonly second: Float64Array
  private readonly base: Float64Array
  private readonly stageFlow: Float64Array
  private readonly passed: Float64Array
  private readonly linkIndex: ReadonlyMap<string, number>
  private step = 1e-4
  private clock = 0

  /** @throws FluidError naming the element that is wrong */
  constructor(network: Network) {
    validateNetwork(network)
    this.net = compile(network)
    this.solver = new BalanceSolver(this.net)
    this.p = this.net.start.slice()
    const n = this.net.contents.length
    this.mass = new Float64Array(n)
    this.slope = new Float64Array(n)
    this.base = new Float64Array(n)
    this.first = this.p.slice()
    this.second = this.p.slice()
    this.stageFlow = new Float64Array(this.net.links.length)
    this.passed = new Float64Array(this.net.links.length)
    this.linkIndex = new Map(this.net.links.map((l) => [l.id, l.index]))
    this.massFromPressure()
    for (const link of this.net.links) link.settle(this.p)
  }

  /** Seconds since the start. */
  get time(): number {
    return this.clock
  }

  /** Gauge pressure of a place, kPa. @throws FluidError when there is none of that name */
  pressure(place: string): number {
    const index = this.net.placeIndex.get(place)
    if (index === undefined) throw new FluidError(place, 'there is no such place')
    return this.p[index] as number
  }

  /** kg/s through a link at present. */
  flow(link: string): number {
    return this.solver.flows[this.link(link)] as number
  }

  /** Turns a valve: 0 shut … 1 open. @throws FluidError when it is no valve, or no such opening */
  setOpening(valve: string, opening: number): void {
    const link = this.net.links[this.link(valve)]
    if (!(link instanceof BoundValve)) throw new FluidError(valve, 'it is not a valve')
    if (!(opening >= 0 && opening <= 1)) throw new FluidError(valve, 'opens from 0 to 1')
    link.open(opening)
    this.disturb()
  }

  /** Changes a draw, m³/s. @throws FluidError when it is no demand, or no such flow */
  setDemand(demand: string, flow: number): void {
    const link = this.net.links[this.link(demand)]
    if (!(link instanceof BoundDemand)) throw new FluidError(demand, 'it is not a demand')
    if (!(flow >= 0 && flow <= 100)) throw new FluidError(demand, 'draws 0 to 100 m³/s')
    link.draw = flow
    this.disturb()
  }

  /** Sets the spring of a relief or regulator, kPa. @throws FluidError when it is none, or no such load */
  setSpring(relief: string, opensBelowKpa: number): void {
    const link = this.net.links[this.link(relief)]
    if (!(link instanceof BoundRelief)) throw new FluidError(relief, 'it has no spring')
    if (!Number.isFinite(opensBelowKpa)) throw new FluidError(relief, 'its spring is not a number')
    link.opensBelowKpa = opensBelowKpa
  }

  /** How far a relief is open, 0 … 1. @throws FluidError when it is no relief */
  reliefLift(relief: string): number {
    const link = this.net.links[this.link(relief)]
    if (!(link instanceof BoundRelief)) throw new FluidError(relief, 'it is not a relief')
    return link.held
  }

  /** After a change from outside the old slopes lead nowhere. */
  private disturb(): void {
    this.slope.fill(0)
    this.step = Math.min(this.step, 1e-3)
  }

  /** kg that have passed a link since the start. */
  passedThrough(link: string): number {
    return this.passed[this.link(link)] as number
  }

  /** kg in all volumes together. */
  totalMass(): number {
    return this.net.contents.reduce((sum, c, i) => sum + c.atRest + (this.mass[i] as number), 0)
  }

  private link(id: string): number {
    const index = this.linkIndex.get(id)
    if (index === undefined) throw new FluidError(id, 'there is no such link')
    return index
  }

  /**
   * Goes on by so many seconds, in steps as long as the accuracy allows.
   * @throws FluidError when no step, however short, can be computed
   */
  advance(seconds: number): void {
    if (!(seconds >= 0 && seconds <= 86_400)) {
      throw new FluidError('time', `${seconds} s cannot be simulated; at most a day at once`)
    }
    let left = seconds
    for (let count = 0; left > 1e-12; count++) {
      if (count > MOST_STEPS)
        throw new FluidError(this.solver.worst(), 'changes too fast to follow')
      const h = Math.min(this.step, left)
      const stray = this.tryStep(h)
      if (stray <= 1 || (h <= SHORTEST_S && Number.isFinite(stray))) {
        this.accept(h)
        left -= h
        // A step cut short by the end of the interval says nothing against the longer one.
        const grown = h * Math.min(3, 0.9 / Math.sqrt(Math.max(stray, 0.01)))
        this.step = Math.min(LONGEST_S, h < this.step && grown < this.step ? this.step : grown)
      } else {
        if (h <= SHORTEST_S)
          throw new FluidError(this.solver.worst(), 'no pressure balances its flows')
        this.step = h * (Number.isFinite(stray) ? Math.max(0.2, 0.8 / Math.sqrt(stray)) : 0.1)
      }
    }
    this.clock += seconds
  }

  /** Both stages of a step of h seconds; how far the result strays, 1 being as far as allowed. */
  private tryStep(h: number): number {
    const { p, first, second, base, slope, mass, solver } = this
    const n = mass.length
    for (let i = 0; i < n; i++) {
      base[i] = mass[i] as number
      first[i] = (p[i] as number) + GAMMA * h * (slope[i] as number)
    }
    if (!solver.solve(first, base, GAMMA * h)) return Infinity
    this.stageFlow.set(solver.flows)
    for (const link of this.net.links) {
      const part = (1 - GAMMA) * h * (this.stageFlow[link.index] as number)
      if (link.from < n) base[link.from] = (base[link.from] as number) - part
      if (link.to >= 0 && link.to < n) base[link.to] = (base[link.to] as number) + part
    }
    for (let i = 0; i < n; i++) {
      const way = ((first[i] as number) - (p[i] as number)) / GAMMA
      second[i] = (p[i] as number) + way
    }
    if (!solver.solve(second, base, GAMMA * h)) return Infinity
    let stray = 0
    for (let i = 0; i < n; i++) {
      const predicted = (p[i] as number) + h * (slope[i] as number)
      const allowed = STRAY_KPA + STRAY_PART * Math.abs(second[i] as number)
      stray = Math.max(stray, Math.abs((second[i] as number) - predicted) / (2 * allowed))
    }
    return stray
  }

  private accept(h: number): void {
    const { p, second, mass, slope, solver } = this
    const n = mass.length
    for (const link of this.net.links) {
      const { index, from, to } = link
      const moved =
        h *
        ((1 - GAMMA) * (this.stageFlow[index] as number) + GAMMA * (solver.flows[index] as number))
      this.passed[index] = (this.passed[index] as number) + moved
      if (from < n) mass[from] = (mass[from] as number) - moved
      if (to >= 0 && to < n) mass[to] = (mass[to] as number) + moved
    }
    for (let i = 0; i < n; i++) {
      slope[i] = ((second[i] as number) - (this.first[i] as number)) / ((1 - GAMMA) * h)
      p[i] = second[i] as number
    }
    for (const link of this.net.links) link.settle(p)
  }

  /**
   * Goes to where nothing changes any more: the same balance with ever longer steps, so that a
   * volume that nothing reaches keeps its content. @throws FluidError when it does not come to rest
   */
  settle(): void {
    const { p, mass, solver } = this
    const n = mass.length
    let h = 1e-3
    for (let count = 0; count < 400; count++) {
      for (let i = 0; i < n; i++) {
        this.base[i] = mass[i] as number
        this.second[i] = p[i] as number
      }
      if (!solver.solve(this.second, this.base, h)) {
        h /= 4
        if (h < SHORTEST_S) break
        continue
      }
      let moved = 0
      for (let i = 0; i < n; i++) {
        moved = Math.max(moved, Math.abs((this.second[i] as number) - (p[i] as number)))
        p[i] = this.second[i] as number
      }
      this.massFromPressure()
      for (const link of this.net.links) link.settle(p)
      if (h > 1e5 && moved < 1e-4) {
        this.slope.fill(0)
        this.step = 1e-3
        return
      }
      h = Math.min(h * 3, 1e7)
    }
    throw new FluidError(solver.worst(), 'does not come to rest')
  }

  private massFromPressure(): void {
    for (let i = 0; i < this.mass.length; i++) {
      const content = this.net.contents[i] as (typeof this.net.contents)[number]
      this.mass[i] = content.mass(this.p[i] as number)
    }
  }
}
