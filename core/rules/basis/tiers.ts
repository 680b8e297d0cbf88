import * as yup from 'yup'
import { type AnyQuantity, toSi } from '../../quantity'
import { anyQuantity, number, slug, strictObject } from '../../schema'
import { directly } from '../measure'
import { usualDigits } from '../plausible'
import type { TestRun } from '../types'
import { because } from '../reason'
import type { Basis, Ends, Missing } from './basis'
import { inUnit } from './ends'
import { itemFields } from './fields'

const tierSchema = strictObject({
  /** It holds from this value of the nominal on, up to the next tier. */
  from: anyQuantity().required(),
  /** What may be added to the nominal, in percent of it. */
  percent: number(0, 1000),
  /** What may be added to it as a pressure. */
  add: anyQuantity().default(undefined).optional(),
}).test(
  'one-way',
  'a tier adds either “percent” or “add”',
  (t: { percent?: unknown; add?: unknown } | undefined) =>
    !t || (t.percent === undefined) !== (t.add === undefined),
)

/** How far a protected system may rise. */
export const tierFields = {
  /** The nominal value that the tiers go by, as the maximum allowable operating pressure. */
  of: slug().required(),
  tiers: yup.array(tierSchema.required()).strict(true).min(1).max(12).required(),
  /** A nominal value that the reading may not exceed either, where the equipment has one. */
  andAtMost: slug(),
}

const schema = strictObject({
  ...itemFields('tiers'),
  /** The reading that may not be higher, as the pressure at which the relief opens. */
  reading: slug().required(),
  ...tierFields,
})
type Item = yup.InferType<typeof schema>
type Tiered = Pick<Item, 'of' | 'tiers' | 'andAtMost'>

/**
 * A reading under an upper end that grows in tiers with a nominal value: the pressure to which a
 * protected system may rise over its maximum allowable operating pressure (49 CFR 192.201 (a) (2)).
 */
export const tiers: Basis<Item> = {
  schema,
  recorded: false,
  uncertainty: 'readings',
  restsOn: (item) => [item.reading, item.of],
  limit: () => undefined,
  measure: (item, run) => directly(item.reading, run),
  ends: tieredEnd,
}

/** The pressure to which the system may rise, in a unit. */
export function tieredEnd(item: Tiered, run: TestRun, unit: string): Ends | Missing {
  const of = run.nominals?.[item.of]
  if (!of)
    return {
      missing: because('needs-nominal', `${words(item.of)} is not known, by which its limit goes`, {
        name: item.of,
      }),
    }
  const base = toSi(of)
  const tier = item.tiers
    .filter((t) => t.from.dimension === of.dimension && toSi(t.from) <= base + ROUNDING)
    .reduce<(typeof item.tiers)[number] | undefined>(
      (found, t) => (found && toSi(found.from) > toSi(t.from) ? found : t),
      undefined,
    )
  if (!tier)
    return {
      missing: because('no-tier', `the pack has no tier for ${words(item.of)}`, { name: item.of }),
    }
  const grown =
    inUnit(of, unit) * (1 + (tier.percent ?? 0) / 100) + (tier.add ? inUnit(tier.add, unit) : 0)
  const other = nominalOf(run, item.andAtMost, of)
  const high = other ? Math.min(grown, inUnit(other, unit)) : grown
  return { high, digits: usualDigits(of.dimension, unit) + 1 }
}

const ROUNDING = 1e-9
const words = (name: string) => name.replaceAll('-', ' ')

function nominalOf(run: TestRun, name: string | undefined, like: AnyQuantity) {
  const value = name ? run.nominals?.[name] : undefined
  return value?.dimension === like.dimension ? value : undefined
}
