import * as yup from 'yup'
import { integer, type JsonSchema, line, strictObject, toJsonSchema } from '../../schema'
import { commonShape, type GuideStation } from './stepCommon'
import { leafVerbs, type NameList, verb, type VerbEntry } from './verbs'

/** A step can hold steps: in a published schema it is named, not written out. */
export const lazyStep = yup
  .lazy((value: unknown) => schemaFor(value))
  .meta({ jsonSchema: { $ref: '#/$defs/step' } })

/** Everything that a step can do: one entry a verb, with what else its step says and what its names mean. */
const stepVerbs = {
  ...leafVerbs,
  repeat: verb(yup.array(lazyStep).strict(true).min(1), {
    fields: {
      until: line(160).required('is missing: when the repeat ends'),
      most: integer(1, 50).required('is missing: how often it is gone through at most'),
    },
  }),
}
export type Verb = keyof typeof stepVerbs
export const verbs = Object.keys(stepVerbs) as Verb[]
const entry = (v: Verb): VerbEntry => stepVerbs[v]

const common = strictObject(commonShape)
type Common = yup.InferType<typeof common>
type FieldsOf<V extends Verb> = yup.TypeFromShape<(typeof stepVerbs)[V]['fields'], yup.AnyObject>
interface Repeated {
  readonly repeat: readonly GuideStep[]
}
type Does<V extends Verb> = V extends 'repeat'
  ? Repeated
  : { readonly [K in V]: NonNullable<yup.InferType<(typeof stepVerbs)[V]['object']>> }
type KeysOf<T> = T extends unknown ? keyof T : never
type AnyField = Verb | KeysOf<{ [V in Verb]: FieldsOf<V> }[Verb]>

/** What a step of a verb says as its file has it; what belongs to other verbs it cannot have. */
type Said<V extends Verb> = Common &
  Does<V> &
  Readonly<yup.MakePartial<FieldsOf<V>>> & {
    readonly [K in Exclude<AnyField, V | keyof FieldsOf<V>>]?: undefined
  }

/** A step as its file has it: the verb is the key that is there. */
export type GuideStep = { [V in Verb]: Said<V> }[Verb]

/** A step with its verb, place and station. Sub-guides are written out, so none is left to include. */
type Placed<V extends Verb> = Said<V> & {
  readonly verb: V
  /** Where it stands: `12`, `12.3` in a repeat or sub-guide. */
  readonly id: string
  readonly at: GuideStation
  /** Path in the file, for a message. */
  readonly path: string
  /** The steps of a repeat, placed. */
  readonly steps?: readonly PlacedStep[] | undefined
  /** The sub-guide’s place, for the steps that it was included with. */
  readonly within?: string
}
export type PlacedVerb = Exclude<Verb, 'include'>
export type StepOf<V extends PlacedVerb> = V extends PlacedVerb ? Placed<V> : never
export type PlacedStep = StepOf<PlacedVerb>

type Place = Pick<PlacedStep, 'id' | 'at' | 'path' | 'steps'>

/** A step at its place. One that says nothing to do is refused by its schema before. */
export const placedStep = (step: GuideStep, place: Place): PlacedStep =>
  ({ ...step, verb: verbs.find((v) => step[v] !== undefined), ...place }) as PlacedStep

const schemas = new Map<Verb, yup.Schema<unknown>>()
function schemaOf(v: Verb): yup.Schema<unknown> {
  const { object, fields } = entry(v)
  const known =
    schemas.get(v) ?? strictObject({ ...commonShape, [v]: object.required(), ...fields })
  schemas.set(v, known)
  return known
}

const noVerb = common.test(
  'one-thing',
  `says nothing to do: give one of ${verbs.join(', ')}`,
  () => false,
)
const severalVerbs = (said: readonly Verb[]) =>
  yup
    .mixed()
    .test('one-thing', `says several things: ${said.join(', ')}. Make a step of each`, () => false)

function schemaFor(value: unknown): yup.Schema<unknown> {
  const said = verbs.filter((v) => typeof value === 'object' && value && v in value)
  const [only] = said
  if (!only) return noVerb
  return said.length === 1 ? schemaOf(only).required() : severalVerbs(said)
}

/** A step as JSON Schema says it: what every step may say, and one shape a verb. */
export const stepJsonSchema = (): JsonSchema => ({
  ...toJsonSchema(common),
  additionalProperties: undefined,
  unevaluatedProperties: false,
  oneOf: verbs.map((v) => {
    const { object, fields } = entry(v)
    const { properties, required } = toJsonSchema(
      strictObject({ [v]: object.required(), ...fields }),
    )
    return { properties, required }
  }),
})

/** A name that a step gives, and the lists of the guide that it may stand in. */
export interface StepName {
  readonly name: string
  readonly lists: readonly NameList[]
}

/** The names that a step gives by its verb. */
export function namesIn(step: PlacedStep): StepName[] {
  const { refers } = entry(step.verb)
  return Object.entries(refers).flatMap(([field, lists]) => {
    const name: unknown = (step as unknown as Record<string, unknown>)[
      field === 'object' ? step.verb : field
    ]
    return typeof name === 'string' ? [{ name, lists }] : []
  })
}
