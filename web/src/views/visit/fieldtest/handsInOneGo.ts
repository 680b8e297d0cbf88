import { actionsOf, carriedOut, type ProcedureStep } from '@uvanta/core/procedure'
import type { RunName, VisitState } from '@uvanta/core/visit'

/** Whether what hands do in a step is done, though something may still be read in it. */
export function handsDone(step: ProcedureStep, state: VisitState, run: RunName): boolean {
  if (state.runs[run]?.stepsDone.includes(step.id)) return true
  const actions = actionsOf(step)
  const turned = step.record !== undefined && actions.length > 0
  return turned && carriedOut(actions, state.handsSinceStep) === actions.length
}

/**
 * The steps that hands do in one go around the one that is due: those in which nothing is read and of which no hazard
 * warns; behind them, where the gauge is on the line, the hands of the one that is read next.
 * @returns empty where the step stands for itself
 */
export function handsInOneGo(
  steps: readonly ProcedureStep[],
  due: ProcedureStep,
  streaming: boolean,
): readonly ProcedureStep[] {
  const plain = (s: ProcedureStep | undefined) =>
    s !== undefined && !s.record && !s.hazard && actionsOf(s).length > 0 && s !== steps.at(-1)
  let from = steps.indexOf(due)
  while (plain(steps[from - 1])) from--
  let to = from
  while (plain(steps[to])) to++
  const read = steps[to]
  if (streaming && read?.record && !read.hazard && actionsOf(read).length > 0) to++
  const together = steps.slice(from, to)
  return together.length > 1 && together.includes(due) ? together : []
}
