import type { Procedure, ProcedureStep } from './types'

/** A procedure as it is gone through after work: the customer’s side is opened when it has passed, not before. */
export const asLeftProcedure = (procedure: Procedure): Procedure => ({
  ...procedure,
  steps: procedure.steps.map(heldBack),
})

function heldBack(step: ProcedureStep): ProcedureStep {
  const { untilPassed: held } = step
  if (!held) return step
  const moves = (step.moves ?? []).filter((m) => m.element !== held.element || m.to === 'shut')
  return { ...step, title: held.title, why: held.why, moves }
}
