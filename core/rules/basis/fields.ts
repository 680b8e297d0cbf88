import * as yup from 'yup'
import { anyQuantity, line, prose, slug } from '../../schema'

export const requirements = ['required', 'advisory', 'recorded'] as const
export type Requirement = (typeof requirements)[number]

/** What every item of a pack says, whatever its basis. */
export const itemFields = <B extends string>(basis: B) => ({
  id: slug().required(),
  title: line(80).required(),
  basis: yup.string<B>().strict(true).oneOf([basis]).required(),
  requirement: yup.string<Requirement>().strict(true).oneOf(requirements).required(),
  /** Items that lose their meaning when this one is not as wanted, or is not given. */
  invalidates: yup.array(slug().required()).strict(true),
  /**
   * It says under what the equipment was tested, as the pressure of a hold. What it invalidates means nothing
   * either where it was not read.
   */
  condition: yup.boolean().strict(true),
  /** Items that must have been read before this one. */
  after: yup.array(slug().required()).strict(true),
  /** What a value that is not accepted says of the items it invalidates, and of its own line unless `says` does. */
  /**
   * It is decided by its limit as printed, also in a pack that guards its limits: its gauge is one of the equipment,
   * of which no accuracy is known.
   */
  decision: yup
    .string()
    .strict(true)
    .oneOf(['simple'] as const),
  /** Why an item does not decide though other programmes let it: a choice of this pack. */
  choice: prose(300),
  reason: prose(300),
  says: prose(300),
})

/** One end of what is accepted; exactly one of the two is given. */
export const oneSided = () => ({
  atLeast: anyQuantity().default(undefined).optional(),
  atMost: anyQuantity().default(undefined).optional(),
})

/** Whether exactly one of the two ends is given. */
export const hasOneEnd = (item: { atLeast?: unknown; atMost?: unknown } | undefined): boolean =>
  !item || Boolean(item.atLeast) !== Boolean(item.atMost)
