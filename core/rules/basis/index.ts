import * as yup from 'yup'
import { toJsonSchema } from '../../schema'
import { answer } from './answer'
import { band } from './band'
import type { Basis } from './basis'
import { capacity } from './capacity'
import { creep } from './creep'
import { curve } from './curve'
import { difference } from './difference'
import { limit } from './limit'
import { order } from './order'
import { percent } from './percent'
import { rate } from './rate'
import { spread } from './spread'
import { swing } from './swing'
import { tiers } from './tiers'

/** Every way of judging an item by a value. */
export const measuring = {
  limit,
  band,
  percent,
  tiers,
  capacity,
  difference,
  creep,
  rate,
  curve,
  spread,
  swing,
  order,
} as const
/** Every way of judging an item. */
export const bases = { ...measuring, answer } as const

export type BasisName = keyof typeof bases
type ItemOf<B extends BasisName> = yup.InferType<(typeof bases)[B]['schema']>

/** An item of a rule pack: one of the bases, told apart by `basis`. */
export type PackItem<B extends BasisName = BasisName> = { [P in B]: ItemOf<P> }[B]
export type MeasuredItem = PackItem<keyof typeof measuring>

const isBasis = (name: unknown): name is BasisName =>
  typeof name === 'string' && Object.hasOwn(bases, name)

const unknownBasis = yup.object({
  basis: yup
    .string()
    .strict(true)
    .oneOf(Object.keys(bases), `must be one of ${Object.keys(bases).join(', ')}`)
    .required(),
})

export const packItemSchema = yup
  .lazy((item: unknown): yup.Schema => {
    const { basis } = (item ?? {}) as { basis?: unknown }
    return isBasis(basis) ? bases[basis].schema : unknownBasis
  })
  .meta({ jsonSchema: { oneOf: Object.values(bases).map((b) => toJsonSchema(b.schema)) } })

/** How an item is measured: the basis that it names. */
export const basisOf = (item: MeasuredItem): Basis<MeasuredItem> =>
  // The basis under the name that an item bears takes that item, which the compiler cannot follow.
  measuring[item.basis] as unknown as Basis<MeasuredItem>

/** Items and nominal values that an item is worked out from. */
export const restsOn = (item: PackItem): readonly string[] =>
  item.basis === 'answer' ? [] : basisOf(item).restsOn(item)
