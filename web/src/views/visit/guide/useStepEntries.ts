import { movesOf, type PlacedStep, type StepMove } from '@uvanta/core/guide'
import type { PayloadOf } from '@uvanta/core/visit'
import { useSession } from '@/stores/session'
import { type Spec, useVisit } from '@/stores/visit'

type Valves = Readonly<Record<string, string>>

/** What a press on a step of a guide writes: own locks that come off, valves that are turned, and the step. */
export function useStepEntries() {
  const store = useVisit()
  const session = useSession()

  const movesLeft = (step: PlacedStep, valves: Valves): StepMove[] =>
    movesOf(step).filter((m) => valves[m.element] !== m.to)

  /** Own locks on what a step opens: they come off with the same press. */
  const unlockedBy = (step: PlacedStep, valves: Valves = store.state.valves) =>
    movesLeft(step, valves).flatMap(({ element, to }) => {
      const lock = store.state.locks[element]
      return to !== 'shut' && lock && lock.recordedBy === session.person?.name
        ? [{ element, number: lock.number, on: false }]
        : []
    })

  /**
   * @param found what the step found
   * @param extra of a departure, with valves and step alike
   */
  const entriesOf = (
    step: PlacedStep,
    found: Partial<PayloadOf<'guide-step'>> = {},
    extra: { readonly departure?: string } = {},
    valves: Valves = store.state.valves,
  ): Spec[] => [
    ...unlockedBy(step, valves).map((lock): Spec => ['lock', lock]),
    ...movesLeft(step, valves).map((move): Spec => ['valve-moved', { ...move, ...extra }]),
    ['guide-step', { step: step.id, at: step.at, ...found, ...extra }],
  ]

  /** Of several steps, one after the other: what one has turned the next finds so. */
  function entriesOfAll(steps: readonly PlacedStep[]): Spec[] {
    const valves: Record<string, string> = { ...store.state.valves }
    return steps.flatMap((step) => {
      const entries = entriesOf(step, {}, {}, { ...valves })
      for (const { element, to } of movesOf(step)) valves[element] = to
      return entries
    })
  }

  return { unlockedBy, entriesOf, entriesOfAll }
}
