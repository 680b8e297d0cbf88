import type { Condition } from './condition'
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
  /** Nominal set pressure of a regulator, kPa. */
  readonly setKpa?: number
  /** Nominal opening pressure of its relief valve, kPa. */
  readonly reliefKpa?: number
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
  apply(settings: Settings): void
  /** Goes on by so many seconds. */
  advance(seconds: number): void
  /** Gauge pressure of a place, kPa. */
  pressure(place: string): number
  /** kg/s through an element. */
  flow(element: string): number
  /** kg that have run out of the bleeds of the hoses, which carries their air away. */
  bled(): number
  /** What stands at the instrument, kPa. */
  atInstrument(): number
  /** What a person at the site can see and hear. */
  seen(): Seen
}
