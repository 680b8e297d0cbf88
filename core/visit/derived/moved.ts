import { convertValue, displayedDigits, roundTo } from '../../quantity'
import type { VisitState } from '../log/state'

/** How a reading as found stands to what was left at the visit before. */
export interface Moved {
  readonly item: string
  /** Local date of the visit before. */
  readonly on: string
  /** What was left, in the unit in which it is read now. */
  readonly left: string
  readonly unit: string
  /** What it has moved by since, with its sign, in `unit`. */
  readonly by: string
}

/**
 * What has moved by itself since the last visit: every reading as found against the reading of the same
 * item that was left. Readings of another quantity are left out.
 */
export function movedSince({ plan, runs }: VisitState): Moved[] {
  const { previous } = plan ?? {}
  const found = runs['as-found']?.readings ?? []
  return (previous?.readings ?? []).flatMap((left) => {
    const now = found.findLast((r) => r.item === left.item)
    if (now?.dimension !== left.dimension) return []
    const digits = displayedDigits(now.value)
    const was = convertValue(left.dimension, Number(left.value), left.unit, now.unit)
    const by = roundTo(Number(now.value) - was, digits)
    return {
      item: left.item,
      on: previous?.on ?? '',
      left: roundTo(was, digits),
      unit: now.unit,
      by: Number(by) > 0 ? `+${by}` : Number(by) === 0 ? roundTo(0, digits) : by,
    }
  })
}
