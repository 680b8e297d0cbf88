import { movedBy, piecesAt, piecesOfPart, type PlacedStep } from '../../guide'
import type { Library } from '../../library'
import type { VisitState } from '../log/state'
import { countsOf, guideOfVisit, runOfGuide } from './guide'

/**
 * How many pieces a step moves or counts by the machine, the sheet and what came off before; undefined for a step that
 * counts none, or one.
 */
export function piecesWanted(
  state: VisitState,
  library: Library,
  step: PlacedStep,
): number | undefined {
  const guide = guideOfVisit(state, library)?.guide
  if (!guide) return undefined
  const countOf = countsOf(state, library)
  if (step.count && step.of) return countedNow(state, library, step.of)
  const part = guide.parts.find((p) => p.id === movedBy(step))
  return part?.count || part?.countSlot ? piecesAt(guide, step, countOf) : undefined
}

/** The pieces of some parts that came off on this visit, as they were counted. */
function countedNow(state: VisitState, library: Library, parts: readonly string[]): number {
  const guide = guideOfVisit(state, library)?.guide
  const run = runOfGuide(state, library)
  if (!guide || !run) return 0
  const countOf = countsOf(state, library)
  return run.steps
    .filter((s) => s.remove && parts.includes(s.remove) && run.done.has(s.id))
    .reduce((sum, s) => {
      const counted = state.guideSteps.findLast((d) => d.step === s.id)?.pieces
      return sum + (counted ?? piecesOfPart(guide, s.remove, countOf))
    }, 0)
}
