import type { Medium } from './medium'

/** A place with a pressure that follows from what flows in and out. */
export interface Volume {
  readonly id: string
  readonly volumeM3: number
  /** How much the wall gives: relative growth of the volume per kPa. A steel body has about 1e-7, a hose 2e-5. */
  readonly elasticityPerKpa?: number
  /** Air caught in a volume of water, at atmospheric pressure. */
  readonly airM3?: number
  readonly elevationM?: number
  /** Gauge pressure at the start. */
  readonly startKpa?: number
}

/** A place whose pressure does not answer to the flow: supply, atmosphere, a tank. */
export interface Reservoir {
  readonly id: string
  readonly pressureKpa: number
  readonly elevationM?: number
}

interface Between {
  readonly id: string
  readonly from: string
  readonly to: string
}

/** Shutoff, cock, control, orifice, hose wall: a passage with a flow coefficient. */
export interface Valve extends Between {
  readonly type: 'valve'
  /** gpm at 1 psi (IEC 60534-1), fully open. */
  readonly cv: number
  /** 0 shut … 1 open. */
  readonly opening: number
  /** What still passes when shut. */
  readonly leakCv?: number
}

/** Spring-loaded check: closed under its load, opening with the differential above it. */
export interface Check extends Between {
  readonly type: 'check'
  readonly cv: number
  /** Differential that the spring holds: the static differential of a tight check. */
  readonly loadKpa: number
  /** Differential above the load at which it is fully open. */
  readonly fullLiftKpa: number
  /** Passage past the disc in both directions, by dirt or a cut. */
  readonly leakCv?: number
}

/**
 * Relief valve or air inlet: a diaphragm between two sensed places against a spring. It opens when
 * the sensed differential falls under the spring's, and shuts again only above it by the hysteresis.
 */
export interface Relief extends Between {
  readonly type: 'relief'
  readonly senseHigh: string
  readonly senseLow: string
  readonly opensBelowKpa: number
  /** Fall of the differential from first opening to full lift. */
  readonly fullLiftKpa: number
  readonly hysteresisKpa: number
  readonly cv: number
  readonly leakCv?: number
}

/** A draw of constant volume flow, fading out under 20 kPa. */
export interface Demand {
  readonly type: 'demand'
  readonly id: string
  readonly from: string
  /** m³/s; of gas at the pressure of the place. */
  readonly flow: number
}

export type Link = Valve | Check | Relief | Demand

/** A hydraulic network: what a piece of equipment is to the solver. */
export interface Network {
  readonly medium: Medium
  readonly volumes: readonly Volume[]
  readonly reservoirs: readonly Reservoir[]
  readonly links: readonly Link[]
}
