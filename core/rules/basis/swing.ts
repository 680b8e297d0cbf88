import type * as yup from 'yup'
import { displayedDigits, roundTo, unitDefinition } from '../../quantity'
import { number, slug, strictObject } from '../../schema'
import { channelFor } from '../channel'
import { standingReading } from '../measure'
import { because, notRecorded } from '../reason'
import type { Reading, TestRun } from '../types'
import type { Basis } from './basis'
import { inUnit } from './ends'
import { itemFields } from './fields'
import { named, unknownBase } from './value'

const schema = strictObject({
  ...itemFields('swing'),
  /** The reading during which the needle was watched. */
  reading: slug().required(),
  /** The swing from trough to crest that is accepted, in percent of `of`. */
  percent: number(0, 100).required(),
  /** A nominal value of the equipment, or another reading. */
  of: slug().required(),
})
type Item = yup.InferType<typeof schema>

/** How widely the needle swung during a reading, from its trace: hunting. */
export const swing: Basis<Item> = {
  schema,
  recorded: false,
  uncertainty: 'movement',
  restsOn: (item) => [item.reading, item.of],
  limit: () => undefined,
  measure: (item, run) => {
    const reading = standingReading(run, item.reading)
    if (!reading) return { missing: notRecorded }
    const { swing: value, dimension, unit } = reading
    if (value === undefined)
      return {
        missing: because(
          'swing-unknown',
          'how widely it swings was not recorded: watch it on the trace for 10 s',
        ),
      }
    const digits = unitDefinition(dimension, unit).digits + 1
    const standard = swingUncertainty(reading, value, run)
    return {
      value,
      text: roundTo(value, digits),
      dimension,
      unit,
      digits,
      ...(standard === undefined ? {} : { standard }),
    }
  },
  ends: (item, run, unit) => {
    const of = named(run, item.of)
    const reading = standingReading(run, item.reading)
    if (!of || (reading && reading.dimension !== of.dimension))
      return { missing: unknownBase(item.of) }
    return {
      high: (Math.abs(inUnit(of, unit)) * item.percent) / 100,
      digits: unitDefinition(of.dimension, unit).digits + 1,
    }
  },
}

/**
 * Returns how well a swing is known: crest and trough come from one gauge, so that its offset cancels and its scale
 * alone counts, with one step of the display at either end (JCGM 100:2008 5.2.2 for the correlated part).
 * Undefined when the gauge is unknown.
 */
function swingUncertainty(reading: Reading, value: number, run: TestRun): number | undefined {
  const channel = channelFor(run, reading)
  if (!channel) return undefined
  const scale = ((channel.percent / 100) * value) / Math.sqrt(3)
  const step = 10 ** -displayedDigits(reading.value)
  return Math.hypot(scale, step / Math.sqrt(6))
}
