import type { Opening } from '../../apparatus'
import type { PlacedStep } from './step'

export interface StepMove {
  readonly element: string
  readonly to: Opening
}

/** The valves that a step turns, and how far. */
export function movesOf(step: PlacedStep): StepMove[] {
  const shut = (element: string): StepMove => ({ element, to: 'shut' })
  return [
    ...(step.isolate ? [shut(step.isolate)] : []),
    ...(step.vent ?? []).map((element): StepMove => ({ element, to: 'open' })),
    ...(step.shut ?? []).map(shut),
    ...(step.reopen ? [{ element: step.reopen, to: openTo(step) }] : []),
  ]
}

function openTo({ degree }: PlacedStep): Opening {
  return degree === 'crack' || degree === 'half' ? degree : 'open'
}
