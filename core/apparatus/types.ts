import type { NominalName } from './nominal'
import type { Opening } from './openings'

/** What an element does to what flows, and with that whether it is turned by hand. */
export type Role =
  'shutoff' | 'cock' | 'check' | 'relief' | 'air-inlet' | 'meter' | 'regulator' | 'machine'

/** One thing on equipment that a person can point at. */
export interface Element {
  readonly id: string
  /** What it is on its line: the second check of any line is `check-2`. */
  readonly name: string
  /** The number that is cast on it, where it has one. */
  readonly number?: number
  readonly role: Role
  readonly label: string
  /** The line it belongs to: the main one, or one beside it, as a metered bypass. */
  readonly line: string
  /** The place it stands at; for what lies in the flow the place on its inlet side. */
  readonly at: string
  /** What lies in the flow: the place on the outlet side. */
  readonly to?: string
}

/** A space of equipment that can hold pressure. */
export interface Place {
  readonly id: string
  readonly label: string
  readonly line: string
  /** It is never made safe: the supply, the customer’s side. */
  readonly source?: boolean
}

/** Something that is turned while testing and belongs to the instruments. */
export interface BenchValve {
  readonly id: string
  readonly label: string
}

/**
 * What any kind of equipment is to a field test: its elements and places in flow order, and what
 * hangs on it while it is tested. Drawing, procedures, making safe and models ask this alone.
 */
export interface Apparatus {
  readonly kind: string
  /** As “reduced-pressure assembly”. */
  readonly title: string
  readonly places: readonly Place[]
  readonly elements: readonly Element[]
  /** Valves of the instruments that hang on it. */
  readonly bench: readonly BenchValve[]
  /** What the gauge on its hoses shows; null for equipment that no hose is fitted to. */
  readonly shows: 'differential' | 'gaugePressure' | null
  /** Hoses of the instruments, by name. */
  readonly hoses: readonly string[]
  /** Nominal values of the equipment that its judgement goes by. */
  readonly nominals: readonly NominalName[]
  /** Lines besides the main one, on which the steps of another procedure may be taken. */
  readonly lines: readonly string[]
}

const BY_HAND: readonly Role[] = ['shutoff', 'cock']

/** Ids of everything that a person can open and shut while testing. */
export const movableElements = ({ elements, bench }: Apparatus): string[] => [
  ...elements.filter((e) => BY_HAND.includes(e.role)).map((e) => e.id),
  ...bench.map((v) => v.id),
]

/** Ids of the ports that a hose can be fitted to. */
export const portsOf = ({ elements }: Apparatus): string[] =>
  elements.filter((e) => e.role === 'cock').map((e) => e.id)

/** How a valve stands in service: shutoffs open, everything else that is turned shut. */
export const restOpening = (role: Role | undefined): Opening =>
  role === 'shutoff' ? 'open' : 'shut'

/** How an element stands in service, or a valve of the instruments, which is shut. */
export const restOpeningOf = (apparatus: Apparatus | undefined, id: string): Opening =>
  restOpening(apparatus?.elements.find((e) => e.id === id)?.role)

/** The words for an element, or for a valve of the instruments. */
export function elementLabel({ elements, bench }: Apparatus, id: string): string {
  return [...elements, ...bench].find((e) => e.id === id)?.label ?? id
}

/** Names on a line beside the main one carry its prefix, so that one procedure serves both. */
export const onLine = (line: string, id: string): string => (line === 'main' ? id : `${line}-${id}`)

/** The line whose prefix `onLine` gave to a name. Procedures that are in force keep no other trace of it. */
export const lineOf = ({ lines }: Pick<Apparatus, 'lines'>, id: string): string =>
  lines.find((line) => id.startsWith(onLine(line, ''))) ?? 'main'
