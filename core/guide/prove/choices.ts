import { endsWork } from '../run/run'
import type { PlacedStep } from '../schema/step'

/** What an inspection or a question can find. */
const findingsOf = ({ verdicts, answers }: PlacedStep): string[] =>
  (verdicts ?? answers ?? []).map((v) => v.id)

/** In how many ways the findings of steps combine. */
export const waysThrough = (steps: readonly PlacedStep[]): number =>
  steps.reduce((ways, step) => ways * Math.max(1, findingsOf(step).length), 1)

/** The most that any one step can find. */
export const mostFindings = (steps: readonly PlacedStep[]): number =>
  Math.max(0, ...steps.map((step) => findingsOf(step).length))

/** Which findings of its steps a walk takes up. */
export interface Choosing {
  /** How many findings may yet be other ones than the usual. */
  readonly mayDiffer: number
  /** The usual finding of each step is the one of this place in its list, of those after which work goes on. */
  readonly usual: number
}

export interface Choice {
  readonly id: string
  /** How the walk goes on under it. */
  readonly then: Choosing
}

/** The findings of a step that a walk takes up. */
export function choicesAt(step: PlacedStep, choosing: Choosing): Choice[] {
  const ids = findingsOf(step)
  const goingOn = ids.filter((id) => !endsWork(id))
  const usual = goingOn[choosing.usual % goingOn.length]
  const other = { ...choosing, mayDiffer: choosing.mayDiffer - 1 }
  return ids
    .map((id) => ({ id, then: id === usual ? choosing : other }))
    .filter(({ then }) => then.mayDiffer >= 0)
}
