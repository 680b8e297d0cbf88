import type { VisitEvent } from '../log/events'
import { kitTaken } from './guide'
import type { VisitState } from '../log/state'

/** One kit more or less on a technician’s van. */
export interface StockChange {
  readonly number: string
  readonly change: 1 | -1
  readonly reason: string
}

/**
 * What an event does to the stock of its technician: a kit that is taken is gone, and comes back when
 * another is taken in its place or when nothing of it was needed.
 * @param before the visit without the event
 */
export function stockChanges(before: VisitState, event: VisitEvent): StockChange[] {
  if (event.kind === 'kit-taken') {
    const { number, job } = event.payload
    const taken = kitTaken(before, job)?.number
    if (number === taken) return []
    return [
      ...(taken ? [{ number: taken, change: 1, reason: 'Another was taken' } as const] : []),
      { number, change: -1, reason: 'Taken for a visit' },
    ]
  }
  if (event.kind !== 'kit-closed' || before.kitClosed) return []
  const { lines } = event.payload
  return [...(before.kit ? [before.kit] : []), ...Object.values(before.jobKits)]
    .filter(({ items }) =>
      lines.every((l) => l.used + l.missing === 0 || !items.some((i) => i.item === l.item)),
    )
    .map(({ number }) => ({ number, change: 1, reason: 'Came back unopened' }))
}
