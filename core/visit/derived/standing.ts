import { fails } from '../../rules'
import type { Library } from '../../library'
import { addDays } from '../../calendar'
import { lawfulUntil, nextDue } from '../../programme'
import { programmeOfVisit } from './pinned'
import { finalRun, outcomeOfRun } from './verdicts'
import type { RunName } from '../log/words'
import type { VisitState } from '../log/state'

/** How equipment stands after a visit, for the due list. */
export interface Standing {
  readonly condition: 'in-order' | 'failed' | 'temporary-repair' | 'not-assessed'
  readonly testedOn: string
  /** Next due date; absent while a failure is open, whose repair-by date counts instead. */
  readonly dueOn?: string
  /** The last day on which the next test is still within the programme’s rule. */
  readonly lawfulUntil?: string
  /** Date by which a failure must be repaired or a temporary repair renewed. */
  readonly repairBy?: string
}

/** The run that says how the equipment stands: the last one that is finished, and of a signed visit the final one. */
export const decisiveRun = (state: VisitState): RunName | null =>
  (state.signed ? finalRun(state) : lastFinished(state)) ?? null

/**
 * What a visit, as far as it has come, says of its equipment; null while no test is finished.
 * @param programmeId of the equipment, for logs that pin none
 * @param anchor any due date of the equipment
 */
export function standingAfter(
  state: VisitState,
  library: Library,
  programmeId: string,
  anchor: string,
): Standing | null {
  const decisive = decisiveRun(state)
  if (!decisive) return null
  const testedOn = state.runs[decisive]?.date ?? state.checkedOn[decisive]
  const outcome = outcomeOfRun(state, decisive, library)
  if (!testedOn || !outcome) return null
  const programme = programmeOfVisit(state, library, programmeId)
  if (outcome === 'not-assessed') return { condition: 'not-assessed', testedOn }
  // What it certified does not count: the test is to be made anew, and was due that day.
  if (isVoid(state)) return { condition: 'not-assessed', testedOn, dueOn: testedOn }
  if (fails(outcome)) {
    return {
      condition: 'failed',
      testedOn,
      repairBy: addDays(testedOn, programme.repairWithinDays),
    }
  }
  const dueOn = nextDue(programme, anchor, testedOn)
  const next = { testedOn, dueOn, lawfulUntil: lawfulUntil(programme, testedOn) }
  const until = temporaryUntil(state)
  return until
    ? { condition: 'temporary-repair', ...next, repairBy: until }
    : { condition: 'in-order', ...next }
}

/** The first date by which something temporary is to be renewed. */
export function temporaryUntil(state: VisitState): string | undefined {
  return [...state.repairs, ...state.guideSteps]
    .flatMap((r) => (r.temporary ? [r.temporary.until] : []))
    .sort()[0]
}

/** Whether the certificate that stands for a visit was declared void. */
const isVoid = ({ certificate, voided }: VisitState): boolean =>
  certificate !== undefined && voided[certificate.number] !== undefined

function lastFinished(state: VisitState): RunName | null {
  const finished = (name: RunName) => state.runs[name]?.finished ?? Boolean(state.checks[name])
  if (finished('as-left')) return 'as-left'
  return finished('as-found') ? 'as-found' : null
}
