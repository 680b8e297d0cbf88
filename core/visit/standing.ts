import { type Library, programmeOf } from '../library'
import { addDays, nextDue } from '../programme'
import { finalRun, verdictOf } from './judgement'
import type { VisitState } from './state'

/** How equipment stands after a visit, for the due list. */
export interface Standing {
  readonly condition: 'in-order' | 'failed' | 'temporary-repair' | 'not-assessed'
  readonly testedOn: string
  /** Next due date; absent while a failure is open, whose repair-by date counts instead. */
  readonly dueOn?: string
  /** Date by which a failure must be repaired or a temporary repair renewed. */
  readonly repairBy?: string
}

/**
 * What a visit, as far as it has come, says of its equipment; null while no test is finished.
 * @param anchor any due date of the equipment
 */
export function standingAfter(
  state: VisitState,
  library: Library,
  programmeId: string,
  anchor: string,
): Standing | null {
  const decisive = state.signed ? finalRun(state) : lastFinished(state)
  if (!decisive) return null
  const run = state.runs[decisive]
  const verdict = verdictOf(state, decisive, library)
  if (!run || !verdict) return null
  const programme = programmeOf(library, programmeId)
  const testedOn = run.date
  if (verdict.outcome === 'not-assessed') return { condition: 'not-assessed', testedOn }
  if (verdict.outcome.startsWith('fail')) {
    return {
      condition: 'failed',
      testedOn,
      repairBy: addDays(testedOn, programme.repairWithinDays),
    }
  }
  const dueOn = nextDue(programme, anchor, testedOn)
  const until = state.repairs.flatMap((r) => (r.temporary ? [r.temporary.until] : [])).sort()[0]
  return until
    ? { condition: 'temporary-repair', testedOn, dueOn, repairBy: until }
    : { condition: 'in-order', testedOn, dueOn }
}

function lastFinished(state: VisitState) {
  if (state.runs['as-left']?.finished) return 'as-left'
  return state.runs['as-found']?.finished ? 'as-found' : null
}
