import type { EventDraft, VisitEvent } from '../log/events'
import { appended, type FoldedLog } from '../log/fold'
import { guard } from './guard'
import type { GuardContext, Refusal } from './refusal'

/** What one press writes, in order: all of it or nothing. */
export type Command = readonly EventDraft[]

/** What a command leads to: the entries with the log behind them, or why none of them may be written. */
export type Decision =
  | { readonly events: readonly VisitEvent[]; readonly log: FoldedLog }
  | { readonly refusal: Refusal; readonly of: EventDraft }

/**
 * Decides on a command as a whole: each of its entries is held against the state that those before it
 * lead to, and one that may not stand lets none of them stand. The same answer in the browser, before
 * anything is recorded, and on the server, when it arrives.
 *
 * @param by who writes, and on the server when it arrived
 * @param contextOf what is known when an entry is made; a licence counts on the day of the entry
 */
export function decide(
  log: FoldedLog,
  command: Command,
  by: Pick<VisitEvent, 'personId' | 'personName' | 'serverTime'>,
  contextOf: (draft: EventDraft) => GuardContext,
): Decision {
  let after = log
  for (const draft of command) {
    const entry = { ...draft, ...by }
    const refusal = guard(after, entry, contextOf(draft))
    if (refusal) return { refusal, of: draft }
    after = appended(after, [entry])
  }
  return { events: after.events.slice(log.events.length), log: after }
}
