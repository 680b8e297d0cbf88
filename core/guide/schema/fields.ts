import * as yup from 'yup'
import { type Id, slug } from '../../schema'

export const names = <K extends string = string>() =>
  yup.array(slug<K>().required()).strict(true).min(1)
export const oneOf = <T extends string>(list: readonly T[]) =>
  yup.string<T>().strict(true).oneOf(list)

/** A name, or in a sub-guide the place of one: `{check}`. */
export const ref = <K extends string = string>() =>
  yup
    .string<Id<K>>()
    .strict(true)
    .matches(/^[a-z0-9{][a-z0-9{}-]{0,59}$/, 'must be lower-case words joined by hyphens')
export const refs = <K extends string = string>() =>
  yup.array(ref<K>().required()).strict(true).min(1)
