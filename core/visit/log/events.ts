import * as yup from 'yup'
import { instant, integer, strictObject, uuid, type Id } from '../../schema'
import type { Kind } from './kind'
import { closingKinds } from './kinds/closing'
import { fieldTestKinds } from './kinds/fieldTest'
import { guideKinds } from './kinds/guide'
import { visitKinds } from './kinds/visit'

/** Every kind of event that may stand in a visit’s log. */
export const kinds = { ...visitKinds, ...fieldTestKinds, ...guideKinds, ...closingKinds } as const

export type EventKind = keyof typeof kinds
export const eventKinds = Object.keys(kinds) as EventKind[]
export type PayloadOf<K extends EventKind> = yup.InferType<(typeof kinds)[K]['payload']>

/** What is known of a kind; the kind of an event tells its traits. */
export const traitsOf = (kind: EventKind): Kind<unknown> => kinds[kind]

interface DraftOf<K extends EventKind> {
  readonly id: string
  readonly kind: K
  readonly payload: PayloadOf<K>
  /** Form of the payload, see `upcast`; absent for the first. */
  readonly version?: number
  /** UTC time by the device’s clock. */
  readonly deviceTime: string
  /** Minutes east of UTC by the device’s clock. */
  readonly deviceOffset: number
}

interface LoggedOf<K extends EventKind> extends DraftOf<K> {
  readonly personId: Id<'person'>
  readonly personName: string
  /** From 1; absent while it waits to be sent. */
  readonly seq?: number
  readonly serverTime?: string
  /** By how much the device’s clock was ahead of the server’s when it sent, s; absent while that is little. */
  readonly clockAheadS?: number
  readonly hash?: string
}

/** What a person or device sends: one of the kinds, told apart by `kind`. */
export type EventDraft<K extends EventKind = EventKind> = { [P in K]: DraftOf<P> }[K]

/** What stands in the log: one of the kinds, told apart by `kind`. */
export type VisitEvent<K extends EventKind = EventKind> = { [P in K]: LoggedOf<P> }[K]

export const draftSchema = strictObject({
  id: uuid<'event'>().required(),
  kind: yup.string<EventKind>().strict(true).oneOf(eventKinds).required(),
  payload: yup.mixed<object>().required(),
  version: integer(1, 99),
  deviceTime: instant().required(),
  deviceOffset: integer(-840, 840).required(),
})
