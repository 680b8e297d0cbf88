import * as yup from 'yup'
import { slug } from '../../schema'

export const names = () => yup.array(slug().required()).strict(true).min(1)
export const oneOf = <T extends string>(list: readonly T[]) =>
  yup.string<T>().strict(true).oneOf(list)

/** A name, or in a sub-guide the place of one: `{check}`. */
export const ref = () =>
  yup
    .string()
    .strict(true)
    .matches(/^[a-z0-9{][a-z0-9{}-]{0,59}$/, 'must be lower-case words joined by hyphens')
export const refs = () => yup.array(ref().required()).strict(true).min(1)
