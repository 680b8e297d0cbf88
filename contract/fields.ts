import * as yup from 'yup'
import { line, strictObject, uuid } from '@uvanta/core/schema'

/** The id in the address of a record of one kind. */
export const idParams = <K extends string>() => strictObject({ id: uuid<K>().required() })

/** Cursor paging: what to ask for and what comes back. */
export const pageQuery = {
  cursor: yup.string().strict(true).max(400),
  limit: yup
    .string()
    .strict(true)
    .matches(/^([1-9]\d?|1\d\d|200)$/, 'must be a whole number from 1 to 200'),
}

/** Alphabets whose letters look like those of another one. */
const ALIKE = [
  /\p{Script=Latin}/u,
  /\p{Script=Cyrillic}/u,
  /\p{Script=Greek}/u,
  /\p{Script=Armenian}/u,
]

/** The name of a person: letters of one alphabet, so that nobody is called what only looks like somebody else. */
export const personName = () =>
  line(120).test(
    'one-alphabet',
    'mixes letters of alphabets that look alike: write it in one alphabet',
    (name) => name == null || ALIKE.filter((letters) => letters.test(name)).length <= 1,
  )

/** Words to search for. */
export const searchWords = yup.string().strict(true).max(120, 'must be at most 120 characters')

export function page<T>(item: yup.Schema<T>) {
  return yup.object({
    items: yup.array(item.required() as yup.Schema<T>).required(),
    next: yup.string().nullable().defined(),
  })
}

export function list<T>(item: yup.Schema<T>) {
  return yup.object({ items: yup.array(item.required() as yup.Schema<T>).required() })
}

export const version = () => yup.number().integer().required()

/** The password in force: of what it consists was asked when it was chosen. */
export const password = () =>
  yup.string().strict(true).typeError('must be text').min(1, 'is missing').max(200, 'is too long')
