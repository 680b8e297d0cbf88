import type { LubricantService } from '../../craft'
import type { GuideService } from '../schema/equipment'
import type { GuideStation } from '../schema/stepCommon'

/** What the prover knows of the equipment after some steps on one path. */
export interface ProofState {
  /** Parts that are off the equipment and on the tray. */
  readonly off: Set<string>
  /** Parts thrown away, whose place is empty. */
  readonly gone: Set<string>
  /** Parts that were off at some time, for the function test. */
  opened: boolean
  tested: boolean
  readonly shut: Set<string>
  /** Valves that are opened in part and have still to be opened fully. */
  readonly cracked: Set<string>
  readonly openVents: Set<string>
  readonly proved: Set<string>
  /** Spaces pressurized while parts are out, and not proved at zero since. */
  readonly fedOpen: Set<string>
  readonly relieved: Set<string>
  readonly snapshots: Set<string>
  readonly disturbed: Set<string>
  readonly marks: Set<string>
  readonly aids: Set<string>
  /** Qualification and permission gates passed. */
  readonly gates: Set<string>
  /** The kit was counted. */
  counted: boolean
  /** A hand was on the equipment: a valve was turned, something was loosened or taken off. */
  touched: boolean
  /** Valves that are shut and carry a lock or tag. */
  readonly locked: Set<string>
  /** How it lies on the bench, by the name that the guide gives it; as it was found before. */
  lies: string | undefined
  /** Parts that two of their fasteners still hold, and whose joint nobody has seen break without pressure. */
  readonly onLast: Set<string>
  /** Parts that were given their time. */
  readonly held: Set<string>
  /** Fasteners tightened since they were loose. */
  readonly tight: Set<string>
  readonly clean: Set<string>
  readonly used: Map<string, number>
  readonly loose: Set<string>
  /** Threads and edges with compound on them. */
  readonly treated: Set<string>
  /** Named steps that were done, with their station. */
  readonly named: Map<string, GuideStation>
  readonly inspected: Map<string, string>
  /** Sub-jobs in hand. */
  readonly jobs: Set<string>
  /** Parts that were cleaned, renewed, or put back, at any time. */
  readonly cleaned: Set<string>
  readonly renewed: Set<string>
  readonly refitted: Set<string>
  /** The variant that is walked changes what the owner relies on. */
  readonly permitted: boolean
  /** What flows through it in the variant that is walked. */
  readonly service: GuideService
  /** What a lubricant has to suit besides the rubber. */
  readonly contact: LubricantService | undefined
  air: boolean
  power: boolean
  temporary: boolean
}

export function startState(
  powered: boolean,
  {
    service,
    contact,
    permitted = false,
  }: Pick<ProofState, 'service' | 'contact'> & Partial<ProofState>,
  jobs: ReadonlySet<string>,
): ProofState {
  return {
    off: new Set(),
    gone: new Set(),
    opened: false,
    tested: false,
    shut: new Set(),
    cracked: new Set(),
    openVents: new Set(),
    proved: new Set(),
    fedOpen: new Set(),
    relieved: new Set(),
    snapshots: new Set(),
    disturbed: new Set(),
    marks: new Set(),
    aids: new Set(),
    gates: new Set(),
    counted: false,
    touched: false,
    locked: new Set(),
    lies: undefined,
    onLast: new Set(),
    held: new Set(),
    tight: new Set(),
    clean: new Set(),
    used: new Map(),
    loose: new Set(),
    treated: new Set(),
    named: new Map(),
    inspected: new Map(),
    jobs: new Set(jobs),
    cleaned: new Set(),
    renewed: new Set(),
    refitted: new Set(),
    service,
    contact,
    permitted,
    air: false,
    power: powered,
    temporary: false,
  }
}

type Collection = Set<unknown> | Map<unknown, unknown>
const isCollection = (value: unknown): value is Collection =>
  value instanceof Set || value instanceof Map
const copyOf = (c: Collection): Collection => (c instanceof Set ? new Set(c) : new Map(c))
/** What of a state is changed in place, whatever it is. */
const collections = Object.entries(
  startState(false, { service: 'water', contact: undefined }, new Set()),
).flatMap(([name, value]) => (isCollection(value) ? [name] : []))

/** A state of its own for one of several ways on: every set and map anew. */
export function branchOf(state: ProofState): ProofState {
  const branch = { ...state }
  const own = branch as unknown as Record<string, Collection>
  for (const name of collections) own[name] = copyOf(own[name] as Collection)
  return branch
}
