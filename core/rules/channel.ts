import type { Dimension } from '../quantity'
import type { Channel, TestRun } from './types'

/** Pressures that one gauge shows alike: against the air, and between two ports. */
const PRESSURES: readonly Dimension[] = ['differential', 'gaugePressure']

/** Whether a quantity is a pressure that a test gauge shows. */
export const isPressure = (dimension: Dimension | undefined): boolean =>
  dimension !== undefined && PRESSURES.includes(dimension)

/** Whether a channel shows a quantity; a gauge shows gauge pressures and differentials alike. */
export const showsQuantity = (channel: Channel, dimension: Dimension): boolean =>
  channel.dimension === dimension ||
  (PRESSURES.includes(channel.dimension) && PRESSURES.includes(dimension))

/** Named by a reading that a gauge of the equipment’s own showed, of which nothing is known. */
export const ASIDE = 'aside'

/**
 * The channel of an instrument that a reading was taken with: the one that it names, else the only
 * sort that can have shown it. Undefined when no instrument of the run has shown it.
 */
export function channelFor(
  run: Pick<TestRun, 'channels'>,
  reading: { readonly dimension: Dimension; readonly channel?: string | undefined },
): Channel | undefined {
  if (reading.channel !== undefined) return run.channels?.find((c) => c.id === reading.channel)
  return run.channels?.find((c) => showsQuantity(c, reading.dimension))
}
