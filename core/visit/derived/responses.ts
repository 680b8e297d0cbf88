import type { Library } from '../../library'
import type { VisitState } from '../log/state'
import type { RunName } from '../log/words'
import { planOfVisit } from './pinned'

/** What equipment does when something is taken away from it or given to it. */
export interface Response {
  /** What was done to it, as “Loss of air”. */
  readonly cause: string
  /** What the pack wants to be seen. */
  readonly expected: readonly string[]
  /** What was seen; null while nobody has looked. */
  readonly seen: string | null
  readonly asExpected: boolean
}

/** The fail test of a run, cause by cause; empty where its procedure has none. */
export function responsesOf(state: VisitState, library: Library, name: RunName): Response[] {
  const plan = planOfVisit(state, library, name)
  const run = state.runs[name]
  if (!plan || !run) return []
  return plan.procedure.steps.flatMap(({ record }) => {
    const item = plan.test.items.find((i) => i.id === record?.item)
    if (!record?.respondsTo || item?.basis !== 'answer') return []
    const given = run.answers.findLast((a) => a.item === record.item)
    const expected = (record.answers ?? []).filter((a) => item.accept.includes(a.id))
    return {
      cause: record.respondsTo,
      expected: expected.map((a) => a.label),
      seen: given?.label ?? null,
      asExpected: given !== undefined && item.accept.includes(given.answer),
    }
  })
}
