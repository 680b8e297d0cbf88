import type * as yup from 'yup'

/** A form of a payload that is no longer written, but stands in logs and on old devices. */
export interface EarlierForm {
  readonly payload: yup.ISchema<unknown>
  readonly next: (payload: never) => object
}

/** What is true of every event of a kind, whatever it says. */
export interface KindTraits {
  /** Who writes it: the technician of the visit, the office as well, or the server alone. */
  readonly by: 'technician' | 'office' | 'server'
  /**
   * Who corrects it: nobody, whoever may write to the visit, or on a signed visit only the tester with
   * the password, because verdict and certificate rest on it.
   */
  readonly corrected: 'never' | 'freely' | 'attested'
  /** A press by mistake: taken back at once, while nothing has come after it. */
  readonly undone: boolean
  /** Fields that say which entry it is: they stay as they are in a correction. */
  readonly identity: readonly string[]
  /** The form of its payload that is written today, from 1. */
  readonly version: number
  /** Its earlier forms, by their number: what they said, and how that is said in the form after it. */
  readonly earlier: Readonly<Record<number, EarlierForm>>
}

/** A kind of event: the schema of what it says, and its traits. */
export type Kind<S> = KindTraits & { readonly payload: S }

/**
 * Defines a kind of event.
 * @param payload schema of the newest form
 * @param traits where they differ from the usual: written by the technician, never corrected, form 1
 */
export const kind = <S extends yup.ISchema<unknown>>(
  payload: S,
  traits: Partial<KindTraits> = {},
): Kind<S> => ({
  payload,
  by: 'technician',
  corrected: 'never',
  undone: false,
  identity: [],
  version: 1,
  earlier: {},
  ...traits,
})
