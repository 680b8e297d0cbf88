import { DateTime } from 'luxon'
import type * as yup from 'yup'
import { convertValue, displayedDigits, formatQuantity } from '../../quantity'
import { amount, anyQuantity, number, slug, strictObject } from '../../schema'
import { differenceOf, standingReading } from '../measure'
import type { Basis } from './basis'
import { digitsIn, inUnit } from './ends'
import { itemFields } from './fields'
import { usualDigits } from '../plausible'
import type { TestRun } from '../types'
import { named } from './value'

const schema = strictObject({
  ...itemFields('creep'),
  /** The reading at the beginning of the hold. */
  from: slug().required(),
  /** How long it must have been held at least. */
  over: amount('time').required(),
  /** The change that is accepted over the hold. */
  atMost: anyQuantity().default(undefined).optional(),
  /** The same in percent of a nominal value or of another reading. */
  percent: number(0, 100),
  of: slug(),
}).test(
  'one-way',
  'a creep needs either “atMost”, or “percent” and what it is a percentage “of”',
  (i: { atMost?: unknown; percent?: unknown; of?: unknown } | undefined) =>
    !i || (i.atMost ? !i.of : i.percent !== undefined && i.of !== undefined),
)
type Item = yup.InferType<typeof schema>

/**
 * How far a reading has moved over a timed hold: a regulator at lock-up rises, a space that leaks falls.
 * The time is that between the two readings; one that was held too short says nothing.
 */
export const creep: Basis<Item> = {
  schema,
  recorded: true,
  restsOn: (item) => [item.from, ...(item.of ? [item.of] : [])],
  limit: (item) => item.atMost,
  measure: (item, run) => {
    const rise = differenceOf(item.id, item.from, run)
    if ('missing' in rise) return rise
    const [first, last] = [item.from, item.id].map((id) => standingReading(run, id))
    const held = last?.heldS ?? secondsBetween(first?.takenAt, last?.takenAt)
    if (held === null) return { missing: 'how long it was held is not known: hold it again' }
    const wanted = inUnit({ dimension: 'time', ...item.over }, 's')
    if (held + SLACK_S < wanted) {
      const minutes = (held / 60).toFixed(1)
      const want = formatQuantity({ dimension: 'time', ...item.over })
      return { missing: `held for ${minutes} min, ${want} are wanted: too short to tell` }
    }
    const moved = Math.abs(rise.value)
    return { ...rise, value: moved, text: moved.toFixed(rise.digits) }
  },
  ends: (item, run, unit) => {
    const of = item.atMost ?? named(run, item.of ?? '')
    if (!of)
      return {
        missing: `${item.of?.replaceAll('-', ' ')} is not known, of which it is a percentage`,
      }
    const part = item.atMost ? 1 : (item.percent ?? 0) / 100
    const high = Math.abs(inUnit(of, unit)) * part
    const step = stepOf(item, run, unit)
    if (step > high + ROUNDING) {
      return { missing: 'its readings are too coarse to tell: take a gauge with a finer scale' }
    }
    const digits = item.atMost ? digitsIn(of, unit) : usualDigits(of.dimension, unit) + 1
    return { high, digits }
  },
}

const ROUNDING = 1e-9

/** The coarser step in which the two readings were displayed, in `unit`. */
function stepOf({ from, id }: Item, run: TestRun, unit: string): number {
  const steps = [from, id].map((name) => {
    const reading = standingReading(run, name)
    if (!reading) return 0
    const { dimension } = reading
    const at = (value: number) => convertValue(dimension, value, reading.unit, unit)
    return at(10 ** -displayedDigits(reading.value)) - at(0)
  })
  return Math.max(...steps)
}

/** A press comes a moment before the second that it is stamped with is full. */
const SLACK_S = 1

function secondsBetween(from: string | undefined, to: string | undefined): number | null {
  if (!from || !to) return null
  const seconds = DateTime.fromISO(to).diff(DateTime.fromISO(from)).as('seconds')
  return Number.isFinite(seconds) ? seconds : null
}
