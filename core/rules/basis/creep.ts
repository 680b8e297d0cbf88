import { secondsBetween } from '../../calendar'
import * as yup from 'yup'
import { convertValue, displayedDigits, formatQuantity, roundTo } from '../../quantity'
import { amount, number, slug, strictObject } from '../../schema'
import { differenceOf, type Measured, standingReading } from '../measure'
import { because } from '../reason'
import type { Basis, Missing } from './basis'
import { inUnit } from './ends'
import { itemFields } from './fields'
import { usualDigits } from '../plausible'
import type { TestRun } from '../types'
import { named, together, unknownBase, valueIn } from './value'

const schema = strictObject({
  ...itemFields('creep'),
  /** The reading at the beginning of the hold. */
  from: slug().required(),
  /** How long it must have been held at least. */
  over: amount('time').required(),
  /** The change that is accepted over the hold, in percent of `of`. */
  percent: number(0, 100).required(),
  /** A nominal value of the equipment, or another reading. */
  of: slug().required(),
  /** Temperatures of the shut-in gas at the beginning and at the end, for which the change is corrected. */
  temperatures: yup.array(slug().required()).strict(true).length(2),
})
type Item = yup.InferType<typeof schema>

/**
 * How far a reading has moved over a timed hold: a regulator at lock-up rises, a space that leaks falls.
 * The time is that between the two readings, whatever else is claimed of it; one that was held too short says nothing. Gas that is shut
 * in falls as it cools and rises as it warms: with its temperatures known, what it lost is told apart
 * from that.
 */
export const creep: Basis<Item> = {
  schema,
  recorded: true,
  uncertainty: 'readings',
  restsOn: (item) => [item.from, item.of, ...(item.temperatures ?? [])],
  limit: () => undefined,
  measure: (item, run) => {
    const moved = item.temperatures
      ? atOneTemperature(item, item.temperatures, run)
      : differenceOf(item.id, item.from, run)
    if ('missing' in moved) return moved
    const held = heldS(item, run)
    if (held === null)
      return {
        missing: because('hold-unknown', 'how long it was held is not known: hold it again'),
      }
    if (held < 0)
      return {
        missing: because(
          'hold-out-of-order',
          'its beginning was read after its end: hold it again, and read it at the end',
        ),
      }
    const wantedS = inUnit(hold(item), 's')
    if (held + SLACK_S < wantedS) {
      const minutes = (held / 60).toFixed(1)
      const want = formatQuantity(hold(item))
      return {
        missing: because(
          'held-too-short',
          `held for ${minutes} min, and ${want} are needed: too short to tell`,
          { heldS: Math.floor(held), wantedS },
        ),
      }
    }
    const value = Math.abs(moved.value)
    return { ...moved, value, heldS: Math.floor(held), text: roundTo(value, moved.digits) }
  },
  ends: (item, run, unit) => {
    const of = named(run, item.of)
    if (!of) return { missing: unknownBase(item.of) }
    const high = (Math.abs(inUnit(of, unit)) * item.percent) / 100
    if (coarserStep(item, run, unit) > high + ROUNDING) {
      return {
        missing: because(
          'too-coarse',
          'its readings are too coarse to tell: take a gauge with a finer scale',
        ),
      }
    }
    return { high, digits: usualDigits(of.dimension, unit) + 1 }
  },
}

/**
 * What the pressure of shut-in gas changed by besides what its temperature did: p₂·T₁/T₂ − p₁ in
 * absolute terms (ideal gas law), with the uncertainty of all four readings.
 */
function atOneTemperature(
  item: Item,
  [first = '', last = '']: readonly string[],
  run: TestRun,
): Measured | Missing {
  const moved = differenceOf(item.id, item.from, run)
  if ('missing' in moved) return moved
  const { dimension, unit } = moved
  if (dimension !== 'gaugePressure')
    return { missing: because('other-quantity', 'it is not a gauge pressure') }
  const end = valueIn(run, item.id, dimension, unit)
  const start = valueIn(run, item.from, dimension, unit)
  const t1 = valueIn(run, first, 'temperature', 'K')
  const t2 = valueIn(run, last, 'temperature', 'K')
  if (!end || !start || !t1 || !t2)
    return {
      missing: because(
        'needs-readings',
        'the temperature at one end of the hold was not recorded: read it there',
        { items: [first, last].join(' ') },
      ),
    }
  const atmosphere = convertValue(dimension, ATMOSPHERE_KPA, 'kPa', unit)
  const absolute = end.value + atmosphere
  const ratio = t1.value / t2.value
  const value = absolute * ratio - atmosphere - start.value
  const standard = together(
    start.standard,
    end.standard === undefined ? undefined : ratio * end.standard,
    t1.standard === undefined ? undefined : (absolute / t2.value) * t1.standard,
    t2.standard === undefined ? undefined : (absolute * ratio * t2.standard) / t2.value,
  )
  const { standard: _, ...known } = moved
  return { ...known, value, ...(standard === undefined ? {} : { standard }) }
}

const ATMOSPHERE_KPA = 101.325
const ROUNDING = 1e-9
/** A press comes a moment before the second that it is stamped with is full. */
const SLACK_S = 1

const hold = ({ over }: Item) => ({ dimension: 'time' as const, ...over })

/** The readings at both ends of the hold that stand. */
const readings = ({ from, id }: Item, run: TestRun) =>
  [from, id].flatMap((name) => standingReading(run, name) ?? [])

/**
 * How long it was held, s: as its trace shows, else the time between the two entries, and no longer than is claimed.
 * Negative when the end was read before the beginning; null where nothing says it.
 */
function heldS(item: Item, run: TestRun): number | null {
  const [first, last] = readings(item, run)
  if (last?.tracedS !== undefined) return last.tracedS
  const claimed = last?.heldS
  if (!first?.takenAt || !last?.takenAt) return claimed ?? null
  const stamped = secondsBetween(first.takenAt, last.takenAt)
  return claimed === undefined ? stamped : Math.min(stamped, claimed)
}

/** The coarser step in which the two readings were displayed, in `unit`. */
const coarserStep = (item: Item, run: TestRun, unit: string): number =>
  Math.max(
    ...readings(item, run).map((r) =>
      convertValue(r.dimension, 10 ** -displayedDigits(r.value), r.unit, unit),
    ),
  )
