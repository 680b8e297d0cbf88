import type { FaultKind } from '../../faults'
import type { NominalName } from '../../nominal'

/** A machine as its model sees it while it is tried. */
export interface Tried {
  /** 0 healthy … 1 as bad as it gets. */
  worn(element: string, fault: FaultKind): number
  /** The worst of a fault among parts. */
  worst(fault: FaultKind, ...elements: readonly string[]): number
  /** A nominal value in its SI unit, or what is usual. */
  nominal(name: NominalName, usual: number): number
  /** Air that it is supplied with, kPa. */
  readonly supplyKpa: number
  /** Travel at present, 1 being all of it. */
  readonly travel: number
  /** Seconds since it was last looked at for this item’s beginning of a hold. */
  readonly shutInS: number
}

/** What one kind of machine shows a tester, by item of its test. */
export interface Work {
  /** In the SI unit of the item’s dimension. */
  readonly measures: Readonly<Record<string, (tried: Tried) => number>>
  /** Whether a person gives the good answer. */
  readonly answers: Readonly<Record<string, (tried: Tried) => boolean>>
  /** Items at which air is shut in and its fall begins. */
  readonly shutsIn?: readonly string[]
  /** How far the positioner and what it moves are off. */
  readonly positioner?: string
}

/** How much of a leak a person sees, hears or feels. */
export const SEEN = 0.1
/** How stiff a part is before a hand or an eye notices. */
export const FELT = 0.25

/** Drops or bubbles a second past a seal: so many a minute when it is as bad as it gets. */
export const drips = (severity: number, worstPerMinute: number): number =>
  // What seals is dry: under this nothing comes through in a minute.
  severity < 0.02 ? 0 : (severity * worstPerMinute) / 60

/** A stroke takes longer the stiffer it goes, s. */
export const stroke = (seconds: number, stiff: number): number => seconds * (1 + 6 * stiff)

/** A tight chamber loses so much of its air a second; a seal as bad as it gets loses more. */
const TIGHT_PER_S = 1e-5
const WORN_PER_S = 2e-3

/** Air shut in, falling as its seals let it, kPa. */
export const shutIn = (kpa: number, seconds: number, worn: number): number =>
  kpa * Math.exp(-(TIGHT_PER_S + WORN_PER_S * worn) * seconds)
