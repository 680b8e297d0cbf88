import type { Condition } from './condition'
import type { NominalName } from './nominal'
import type { Opening } from './openings'
import type { Apparatus } from './types'

/** kg/s over which a discharge is seen as a drip: about one drop in two seconds. */
export const DRIP_KG_S = 3e-5

/** How valves and hoses stand. */
export interface Settings {
  /** Openings of valves; shutoffs not named are open, everything else is shut. */
  readonly openings: Readonly<Record<string, Opening>>
  /** The cock that each hose is fitted to; a hose not named hangs free. */
  readonly hoses: Readonly<Record<string, string>>
  /** Height of the gauge above the port, m; counts when the low side is open to air. */
  readonly gaugeAbovePortM?: number
}

/** What a person at the site can see and hear besides the gauge. */
export interface Seen {
  /** Reliefs and air inlets that discharge, cocks and bleeds that run. */
  readonly running: readonly string[]
  /** Meters that turn. */
  readonly turning: readonly string[]
  /** Air inlets and reliefs that have lifted off their seat. */
  readonly lifted: readonly string[]
  /** Air inlets and reliefs that stand fully open. */
  readonly wideOpen: readonly string[]
}

/** One piece of equipment as a model of it is built: what it is, how it is set, what is wrong with it. */
export interface SiteSpec {
  readonly kind: string
  /** in */
  readonly sizeIn: number
  readonly condition: Condition
  /** Nominal values, each in the SI unit of its dimension. */
  readonly nominals?: Readonly<Partial<Record<NominalName, number>>>
}

/** Equipment with its instruments in time: it is turned, hosed up and waited for, and answers as its model says. */
export interface TestSite {
  readonly layout: Apparatus
  /** Seconds since the start. */
  readonly time: number
  /** Height of the gauge above the port, m. */
  gaugeAbovePortM: number
  opening(element: string): Opening
  /** @throws FluidError when nothing of that name can be turned */
  move(element: string, to: Opening): void
  /** Fits a hose to a cock; null takes it off. @throws FluidError when there is no such hose or cock */
  connect(hose: string, port: string | null): void
  /** Brings valves and hoses to where they stand, as after a reload. */
  restore(settings: Settings): void
  /** Goes on by so many seconds. */
  advance(seconds: number): void
  /** Gauge pressure of a place, kPa. */
  pressure(place: string): number
  /** kg/s through an element. */
  flow(element: string): number
  /** kg that have run out of the bleeds of the hoses, which carries their air away. */
  bled(): number
  /** What stands at the instrument: kPa at its hoses, or what was looked at last in its SI unit. */
  atInstrument(): number
  /** Turns to what an item of the test is read from; what is read by hoses has no need of it. */
  look?(item: string): void
  /** Puts something on it, in the SI unit of that source. @throws FluidError when it takes no such thing */
  apply?(source: string, value: number): void
  /** Turns an adjuster by so many turns, inwards positive. @throws FluidError when there is no such adjuster */
  adjust?(adjuster: string, turns: number): void
  /** Whether a person would give the good answer to an item; undefined where the model has nothing of it. */
  good?(item: string): boolean | undefined
  /** What a person at the site can see and hear. */
  seen(): Seen
}
