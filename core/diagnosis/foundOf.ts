import { fails, type Judgement } from '../rules'
import type { Found } from './likeness'

/**
 * Takes from a judged test what tells of faults: its readings, its answers and the items that failed. An answer whose
 * meaning another finding has taken (check 2 under back-pressure while the relief valve drips) tells nothing and is
 * left out; a reading stays, since the model reads the same equipment in the same state.
 */
export function foundOf(
  run: Pick<Found, 'readings' | 'answers'>,
  items: Judgement['items'],
): Found {
  const meaningless = new Set(items.filter((i) => i.code === 'invalidated').map((i) => i.id))
  return {
    failed: items.filter(hasFailed).map((i) => i.id),
    readings: run.readings.map(({ item, dimension, value, unit, swing }) => ({
      item,
      dimension,
      value,
      unit,
      swing,
    })),
    answers: run.answers
      .filter((a) => !meaningless.has(a.item))
      .map(({ item, answer }) => ({ item, answer })),
  }
}

/**
 * Whether an item failed. What rests on a reading that lost its meaning did not; what only lacks the uncertainty of its
 * gauge has failed where it misses the limit as printed.
 */
const hasFailed = ({ outcome, simple, code }: Judgement['items'][number]): boolean =>
  fails(outcome) || (code === 'gauge-unknown' && fails(simple))
