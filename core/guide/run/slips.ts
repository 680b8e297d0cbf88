import { takeStep } from '../prove/rules'
import { type ProofState, startState } from '../prove/state'
import { type Guide, guideAsBuilt, variantOf } from '../schema/guide'
import type { PlacedStep, PlacedVerb } from '../schema/step'
import type { StepDone } from './run'

/** A prover rule that a step would break in the present state of the machine. */
export interface Slip {
  readonly rule: string
  readonly message: string
}

/** A step on record; one with a departure was not done as it is written. */
export interface StepRecorded extends StepDone {
  readonly departure?: string | undefined
}

/** What is known of the equipment besides the steps: valves, proofs and locks have records of their own. */
export interface KnownToday {
  readonly shut: readonly string[]
  readonly open: readonly string[]
  readonly proved: readonly string[]
  readonly locked: readonly string[]
}

/** Verbs that secure something. With a departure they secure nothing; what happened to a part is a fact either way. */
const ASSURES: ReadonlySet<PlacedVerb> = new Set([
  'gate',
  'isolate',
  'vent',
  'prove',
  'relieve',
  'air',
  'power',
  'liftIn',
  'position',
  'mark',
  'match',
  'snapshot',
  'hold',
  'trial',
  'test',
  'clean',
  'treat',
  'lubricate',
] as const)

/** Rules for the author of a guide. A technician cannot break them. */
const OF_THE_AUTHOR: readonly string[] = [
  'redo-nowhere',
  'no-orientation',
  'no-contact',
  'lubricant-clash',
  'kit-over',
  'shut-order',
  'uncounted',
  // The visit records valve positions itself.
  'not-shut',
]

/**
 * Lists the prover rules that a step would break after the recorded steps. Empty if every step was done as written:
 * the guide is proved to break none.
 * @param steps of the way taken, in their order
 * @param record in the order in which it was made
 */
export function slipsAt(
  guide: Guide,
  variant: string,
  jobs: readonly string[],
  steps: readonly PlacedStep[],
  record: readonly StepRecorded[],
  known: KnownToday,
  step: PlacedStep,
): Slip[] {
  const before = steps.slice(
    0,
    steps.findIndex((s) => s.id === step.id),
  )
  const done = new Set(record.map((r) => r.step))
  const asWritten =
    record.every((r) => r.departure === undefined) && before.every((s) => done.has(s.id))
  if (asWritten) return []
  const built = guideAsBuilt(guide, variant)
  const powered = steps.some((s) => s.power !== undefined)
  const state = startState(powered, variantOf(guide, variant), new Set(jobs))
  for (const entry of record) {
    const placed = steps.find((s) => s.id === entry.step)
    if (placed) takeRecorded(built, placed, entry, state)
  }
  for (const valve of known.open) state.shut.delete(valve)
  for (const valve of known.shut) state.shut.add(valve)
  for (const zone of known.proved) {
    state.proved.add(zone)
    state.fedOpen.delete(zone)
  }
  for (const valve of known.locked) state.locked.add(valve)
  const slips: Slip[] = []
  for (const inner of step.steps ?? [step])
    takeStep(built, inner, state, (rule, message) => slips.push({ rule, message }))
  return slips.filter(({ rule }) => !OF_THE_AUTHOR.includes(rule))
}

function takeRecorded(
  guide: Guide,
  step: PlacedStep,
  { departure, finding }: StepRecorded,
  state: ProofState,
): void {
  if (departure !== undefined && ASSURES.has(step.verb)) return
  for (const inner of step.steps ?? [step]) takeStep(guide, inner, state, () => undefined)
  const asked = step.inspect ?? step.ask
  if (asked && finding) state.inspected.set(asked, finding)
}
