import type { AnyQuantity, Dimension } from '../quantity'
import type { FaultKind } from './faults'
import type { NominalName } from './nominal'
import type { Opening } from './openings'
import type { Role } from './role'

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
  /** What can be wrong with it, where its role alone does not say so. */
  readonly faults?: readonly FaultKind[]
}

/** A space of equipment that can hold pressure. */
export interface Place {
  readonly id: string
  readonly label: string
  readonly line: string
  /** It is never made safe: the supply, the customer’s side. */
  readonly source?: boolean
}

/** What a tester puts on equipment to see it answer, as the signal of a calibrator. */
export interface Source {
  readonly id: string
  readonly label: string
  readonly dimension: Dimension
}

/** A screw by which equipment is set. */
export interface Adjuster {
  readonly id: string
  readonly label: string
  /** What turning it in does, as “raises the set pressure”. */
  readonly inwards: string
  /** The item of a test by which it is set, and what is wanted there. */
  readonly reads: { readonly item: string; readonly wanted: NominalName | AnyQuantity }
  /** The adjuster that is set before it. */
  readonly after?: string
  /** Nominal values between which its spring can be set. */
  readonly range?: readonly [low: NominalName, high: NominalName]
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
  /** Quantities that an instrument on the line can show of it. */
  readonly streams: readonly Dimension[]
  /** Places at which a recorder can have a channel beside the gauge. */
  readonly recorded: readonly string[]
  /** Hoses of the instruments, by name. */
  readonly hoses: readonly string[]
  /** What is put on it besides by valves. */
  readonly sources: readonly Source[]
  readonly adjusters: readonly Adjuster[]
  /** Nominal values of the equipment that its judgement goes by. */
  readonly nominals: readonly NominalName[]
  /** Lines besides the main one, on which the steps of another procedure may be taken. */
  readonly lines: readonly string[]
}

/** A slam-shut that has tripped is opened by hand. */
const BY_HAND: readonly Role[] = ['shutoff', 'cock', 'slam-shut']

/** Ids of everything that a person can open and shut while testing. */
export const movableElements = ({ elements, bench }: Apparatus): string[] => [
  ...elements.filter((e) => BY_HAND.includes(e.role)).map((e) => e.id),
  ...bench.map((v) => v.id),
]

/** Ids of the ports that a hose can be fitted to. */
export const portsOf = ({ elements }: Apparatus): string[] =>
  elements.filter((e) => e.role === 'cock').map((e) => e.id)

/** How a valve stands in service: shutoffs and slam-shuts open, everything else that is turned shut. */
export const restOpening = (role: Role | undefined): Opening =>
  role === 'shutoff' || role === 'slam-shut' ? 'open' : 'shut'

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
