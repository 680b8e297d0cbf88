import { FluidError } from '../../fluid'
import { type FaultFinder, faultFinder } from '../condition'
import type { Opening } from '../openings'
import type { Seen, Settings, SiteSpec, TestSite } from '../site'
import type { Apparatus } from '../types'
import { machines } from './machines'
import { type PositionerState, positionFor } from './positioner'
import { type Tried, type Work, works } from './works'

/** A drive goes through its whole travel in so long, s. */
const TRAVEL_S = 8
/** A turn of zero or span moves the travel by this part. */
const TURN = 0.02
/** What faults do to a positioner as bad as they get, in parts of the travel. */
const OFF = { zero: 0.12, span: 0.15, play: 0.12, dry: 0.08 }
/** Dead band of a healthy one. */
const PLAY = 0.004

const nothingSeen: Seen = { running: [], turning: [], lifted: [], wideOpen: [] }

/**
 * A machine without a pressure network: what a tester reads, counts and feels of it follows from what
 * is wrong with its parts. A positioner moves with its signal in time; air that was shut in falls.
 */
export class MachineSite implements TestSite {
  readonly layout: Apparatus
  private readonly work: Work
  private readonly fault: FaultFinder
  private clock = 0
  private signal = 0
  private travel = 0
  private shutInAt = 0
  private item: string | null = null
  private readonly turned = { zero: 0, span: 0 }
  gaugeAbovePortM = 0

  /** @throws FluidError when there is no machine of that kind */
  constructor(readonly spec: SiteSpec) {
    const layout = machines.find((m) => m.kind === spec.kind)
    const work = works[spec.kind]
    if (!layout || !work) throw new FluidError(spec.kind, 'there is no machine of this kind')
    this.layout = layout
    this.work = work
    this.fault = faultFinder(spec.condition.faults)
    this.travel = this.target()
  }

  get time(): number {
    return this.clock
  }

  private tried(): Tried {
    const { fault, spec, travel } = this
    return {
      worn: fault,
      worst: (kind, ...elements) => Math.max(...elements.map((e) => fault(e, kind))),
      nominal: (name, usual) => spec.nominals?.[name] ?? usual,
      supplyKpa: spec.condition.supplyKpa,
      travel,
      shutInS: this.clock - this.shutInAt,
    }
  }

  private positioner(): PositionerState {
    const { positioner = '' } = this.work
    const { fault, turned } = this
    const dry = Math.max(
      fault(positioner, 'dry'),
      fault('piston-seal', 'dry'),
      fault('bushings', 'dry'),
    )
    return {
      zero: OFF.zero * fault(positioner, 'zero-off') + turned.zero,
      span: -OFF.span * fault(positioner, 'span-off') + turned.span,
      deadBand: PLAY + OFF.play * fault(positioner, 'linkage-worn') + OFF.dry * dry,
      most: 1.1,
    }
  }

  private target(): number {
    return positionFor(this.travel, this.signal, this.positioner())
  }

  look(item: string): void {
    this.item = item
    if (this.work.shutsIn?.includes(item)) this.shutInAt = this.clock
  }

  apply(source: string, value: number): void {
    if (!this.layout.sources.some((s) => s.id === source)) {
      throw new FluidError(source, 'it takes no such thing')
    }
    this.signal = Math.min(Math.max(value, 0), 1)
  }

  adjust(adjuster: string, turns: number): void {
    if (adjuster !== 'zero' && adjuster !== 'span') {
      throw new FluidError(adjuster, 'there is no such adjuster')
    }
    this.turned[adjuster] += turns * TURN
  }

  advance(seconds: number): void {
    this.clock += seconds
    const way = this.target() - this.travel
    this.travel += Math.sign(way) * Math.min(Math.abs(way), seconds / TRAVEL_S)
  }

  atInstrument(): number {
    return this.item === null ? 0 : (this.work.measures[this.item]?.(this.tried()) ?? 0)
  }

  good(item: string): boolean | undefined {
    return this.work.answers[item]?.(this.tried())
  }

  seen(): Seen {
    return nothingSeen
  }

  opening(): Opening {
    return 'shut'
  }

  move(element: string): void {
    throw new FluidError(element, 'nothing is turned on it by hand')
  }

  connect(hose: string): void {
    throw new FluidError(hose, 'no hose is fitted to it')
  }

  restore({ gaugeAbovePortM = 0 }: Settings): void {
    this.gaugeAbovePortM = gaugeAbovePortM
  }

  pressure(): number {
    return 0
  }

  flow(): number {
    return 0
  }

  bled(): number {
    return 0
  }
}
