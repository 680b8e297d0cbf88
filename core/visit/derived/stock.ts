import type { VisitEvent } from '../log/events'
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
  const taken = before.kit?.number
  if (event.kind === 'kit-taken') {
    const { number } = event.payload
    if (number === taken) return []
    return [
      ...(taken ? [{ number: taken, change: 1, reason: 'Another was taken' } as const] : []),
      { number, change: -1, reason: 'Taken for a visit' },
    ]
  }
  if (event.kind !== 'kit-closed' || !taken || before.kitClosed) return []
  const unopened = event.payload.lines.every((l) => l.used + l.missing === 0)
  return unopened ? [{ number: taken, change: 1, reason: 'Came back unopened' }] : []
}
