import * as yup from 'yup'
import './locale'
import { isDate, isMoment } from '../calendar'
import { dimensionTitles, type Dimension, isUnitOf, parseDisplayed, unitsOf } from '../quantity'

/** An object that takes what it names and nothing else. */
export function strictObject<S extends yup.ObjectShape>(shape: S) {
  return yup
    .object(shape)
    .noUnknown(({ unknown }: { unknown?: string }) => `has no field “${unknown ?? ''}”: remove it`)
    .strict(true)
    .typeError('must be an object with named fields')
}

/** One line of text a person typed, trimmed length 1…`max`. */
export const line = (max = 200) =>
  yup
    .string()
    .strict(true)
    .typeError('must be text')
    .max(max, `must be at most ${max} characters`)
    .test('one-line', 'must be plain text on one line', (v) => v == null || !hasControlCharacter(v))
    .test(seen)
    .test('not-blank', 'must not be blank', (v) => v == null || v.trim() !== '')

/** Several lines of text, length up to `max`. */
export const prose = (max = 4000) =>
  yup
    .string()
    .strict(true)
    .typeError('must be text')
    .max(max, `must be at most ${max} characters`)
    .test('lines', 'must be plain text', (v) => v == null || !hasControlCharacter(v, '\n\r\t'))
    .test(seen)

function hasControlCharacter(text: string, but = ''): boolean {
  return [...text].some((c) => (c < ' ' || c === '\u007f') && !but.includes(c))
}

/**
 * What nobody sees and what turns the order of letters around would make one name look like another on a
 * certificate; half a letter (a surrogate alone) is read back from the database as another one.
 */
const UNSEEN = /[\p{Cs}\u00ad\u200b\u202a-\u202e\u2060-\u2064\u2066-\u206f\ufeff]/u
const seen = {
  name: 'seen',
  message: 'has a character that cannot be seen: type it instead of pasting it',
  test: (v: string | null | undefined) => v == null || !UNSEEN.test(v),
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/
/** The id of one kind of thing: the compiler keeps a visit’s apart from a person’s. */
export type Id<K extends string> = string extends K ? string : string & { readonly idOf?: K }

export const uuid = <K extends string>() =>
  yup
    .string<Id<K>>()
    .strict(true)
    .typeError('must be a UUID')
    .matches(UUID, 'must be a lower-case UUID')

/** A short name of a thing in the library: lower-case words joined by hyphens. */
export const slug = <K extends string = string>() =>
  yup
    .string<Id<K>>()
    .strict(true)
    .matches(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'must be lower-case words joined by hyphens')
    .max(80)

/** The years in which a record of this trade can lie; anything else is a slip of the pen. */
const FIRST_YEAR = 1950
const LAST_YEAR = 2100
const isInRange = (v: string) => {
  const year = Number(v.slice(0, 4))
  return year >= FIRST_YEAR && year <= LAST_YEAR
}

/** A legal date of the utility, 2026-11-24. */
export const localDate = () =>
  yup
    .string()
    .strict(true)
    .typeError('must be a date as 2026-11-24')
    .test('date', `must be a date as 2026-11-24, between ${FIRST_YEAR} and ${LAST_YEAR}`, (v) => {
      return v == null || (isDate(v) && isInRange(v))
    })

/** Time of day by a clock on the wall, as 08:30. */
export const timeOfDay = () =>
  yup
    .string()
    .strict(true)
    .typeError('must be text')
    .matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time of day, as 08:30')

/** A moment, 2026-11-24T08:15:00.000Z. */
export const instant = () =>
  yup
    .string()
    .strict(true)
    .typeError('must be a time as 2026-11-24T08:15:00Z')
    .test('instant', `must be a time in UTC as 2026-11-24T08:15:00Z, after ${FIRST_YEAR}`, (v) => {
      return v == null || (isMoment(v) && isInRange(v))
    })

/** A finite number within a range. */
export const number = (min: number, max: number) =>
  yup
    .number()
    .strict(true)
    .typeError('must be a number')
    .test('finite', 'must be a number', (v) => v == null || Number.isFinite(v))
    .min(min, `must be at least ${min}`)
    .max(max, `must be at most ${max}`)

export const integer = (min: number, max: number) =>
  number(min, max).integer('must be a whole number')

/** A long list of numbers, where one that is lost is null: looked through at once, not element by element. */
export const numberList = (most: number) =>
  yup
    .mixed<(number | null)[]>()
    .test('numbers', `must be 1 to ${most} numbers, a lost one as null`, (v: unknown) => {
      if (v === undefined) return true
      if (!Array.isArray(v) || v.length < 1 || v.length > most) return false
      return v.every((n) => n === null || (typeof n === 'number' && Number.isFinite(n)))
    })
    .meta({
      jsonSchema: {
        type: 'array',
        minItems: 1,
        maxItems: most,
        items: { type: ['number', 'null'] },
      },
    })

/** What an instrument shows, as text: 5.4 */
export const displayed = () =>
  yup
    .string()
    .strict(true)
    .typeError('must be the reading as text, as "5.4"')
    .test('displayed', 'must be digits with a point, as 5.4', (v) => {
      if (v == null) return true
      try {
        parseDisplayed(v)
        return true
      } catch {
        return false
      }
    })

export const unitField = (dimension: Dimension) =>
  yup
    .string()
    .strict(true)
    .oneOf(
      unitsOf(dimension) as string[],
      `must be a unit of ${dimensionTitles[dimension]}: ${unitsOf(dimension).join(', ')}`,
    )

/** A value and its unit, of one dimension: `{ value: "5.0", unit: "psi" }`. */
export const amount = (dimension: Dimension) =>
  strictObject({ value: displayed().required(), unit: unitField(dimension).required() })

/** A value of one dimension that says so itself. */
export const quantityOf = (dimension: Dimension) =>
  strictObject({
    dimension: yup
      .string<Dimension>()
      .strict(true)
      .oneOf([dimension], `must be ${dimension}: a ${dimensionTitles[dimension]} is wanted`)
      .required(),
    value: displayed().required(),
    unit: unitField(dimension).required(),
  })

/** A value, its dimension and a unit that fits it. */
export const anyQuantity = () =>
  strictObject({
    dimension: yup
      .string<Dimension>()
      .strict(true)
      .oneOf(Object.keys(dimensionTitles) as Dimension[])
      .required(),
    value: displayed().required(),
    unit: line(12).required(),
  }).test(
    'unit-fits',
    unitMessage,
    (q: { dimension?: Dimension; unit?: string } | undefined) =>
      !q?.dimension || !q.unit || isUnitOf(q.dimension, q.unit),
  )

function unitMessage({ value }: { value?: { dimension: Dimension; unit: string } }): string {
  if (!value) return 'unit does not fit'
  const { dimension, unit } = value
  if (!Object.hasOwn(dimensionTitles, dimension)) return 'unit does not fit'
  return `${unit} is not a unit of ${dimensionTitles[dimension]}: choose ${unitsOf(dimension).join(', ')}`
}
