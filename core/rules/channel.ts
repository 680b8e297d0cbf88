import type { Dimension } from '../quantity'
import type { Channel, TestRun } from './types'

/** Pressures that one gauge shows alike: against the air, and between two ports. */
const PRESSURES: readonly Dimension[] = ['differential', 'gaugePressure']

const shows = (channel: Channel, dimension: Dimension): boolean =>
  channel.dimension === dimension ||
  (PRESSURES.includes(channel.dimension) && PRESSURES.includes(dimension))

/**
 * The channel of an instrument that a reading was taken with: the one that it names, else the only
 * sort that can have shown it. Undefined when no instrument of the run shows such a quantity.
 */
export function channelFor(
  run: Pick<TestRun, 'channels'>,
  reading: { readonly dimension: Dimension; readonly channel?: string | undefined },
): Channel | undefined {
  const named = run.channels?.find((c) => c.id === reading.channel)
  return named ?? run.channels?.find((c) => shows(c, reading.dimension))
}
