import type { Library } from '../../library'
import type { EventDraft, VisitEvent } from '../log/events'
import { type RunName, runNames } from '../log/words'
import { foldVisit } from '../log/fold'
import { outcomeOf, outcomeOfRun } from './verdicts'

type Outcome = ReturnType<typeof outcomeOf>

/** How a correction changes what follows from the log. */
export interface Effect {
  /** A run, or the visit as a whole. */
  readonly of: RunName | 'visit'
  readonly before: Outcome
  readonly after: Outcome
}

/** What a correction changes downstream, to be shown before it is recorded; empty when nothing. */
export function correctionEffect(
  events: readonly VisitEvent[],
  draft: EventDraft,
  library: Library,
): Effect[] {
  const before = foldVisit(events)
  const after = foldVisit([...events, { ...draft, personId: '', personName: '' }])
  const runs = runNames.map((run): Effect => ({
    of: run,
    before: outcomeOfRun(before, run, library),
    after: outcomeOfRun(after, run, library),
  }))
  const whole: Effect = {
    of: 'visit',
    before: outcomeOf(before, library),
    after: outcomeOf(after, library),
  }
  return [...runs, whole].filter((e) => e.before !== e.after)
}
