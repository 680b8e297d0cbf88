import * as yup from 'yup'
import { openings } from '../apparatus'
import { dimensionNames, type Dimension, isUnitOf } from '../quantity'
import {
  amount,
  anyQuantity,
  integer,
  line,
  localDate,
  number,
  prose,
  slug,
  strictObject,
} from '../schema'

/** Where on the trace a streamed reading is taken. */
export const readingPoints = ['plateau', 'first-drip', 'opening'] as const
export type ReadingPoint = (typeof readingPoints)[number]

/** What the answer to a step is seen by; the first answer of the step is the good one. */
export const observations = [
  'relief-dry',
  'shutoff-tight',
  'reading-holds',
  'opens-fully',
  'meter-turns',
  'meter-still',
  'inlet-dry',
  'water-stops',
] as const
export type Observation = (typeof observations)[number]

const answerOption = strictObject({
  id: slug().required(),
  label: line(80).required(),
})

/** What its check across fields looks at; any may still be missing. */
interface RecordFields {
  ask?: string | undefined
  dimension?: Dimension | undefined
  unit?: string | undefined
  read?: string | undefined
  creep?: unknown
  observe?: string | undefined
  answers?: unknown
}

const recordSchema = strictObject({
  item: slug().required(),
  ask: yup
    .string()
    .strict(true)
    .oneOf(['reading', 'answer'] as const)
    .required(),
  title: line(80).required(),
  dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames),
  unit: line(12),
  read: yup.string().strict(true).oneOf(readingPoints),
  /** Change in a minute over which the needle is not at rest: a slow leak falls on. */
  creep: amount('differential').default(undefined).optional(),
  /** Change in a minute, in percent of what is read, over which it is waited for rest first. */
  restPercent: number(0, 100),
  /** A hose hangs open to air: the height between gauge and port counts. */
  head: yup.boolean().strict(true),
  /** What a model of the equipment shows a person; absent where only a person can tell. */
  observe: yup.string().strict(true).oneOf(observations),
  /** What is done to the equipment that this is its response to, as “Loss of air”. */
  respondsTo: line(40),
  /** It is read on a gauge of its own at the equipment, not on the one on the hose. */
  aside: yup.boolean().strict(true),
  /** It is held so long before this is read. */
  hold: amount('time').default(undefined).optional(),
  answers: yup.array(answerOption.required()).strict(true).min(2),
}).test(
  'shape',
  'a reading needs dimension, unit and read; an answer needs its list of answers; creep goes with a plateau',
  (r: RecordFields | undefined) =>
    !r?.ask ||
    (r.ask === 'reading'
      ? Boolean(r.dimension && r.unit && r.read && isUnitOf(r.dimension, r.unit)) &&
        (!r.creep || r.read === 'plateau')
      : Boolean(r.answers && !r.creep)),
)

const moveSchema = strictObject({
  element: slug().required(),
  to: yup.string().strict(true).oneOf(openings).required(),
})

const hoseSchema = strictObject({
  hose: slug().required(),
  port: slug().required(),
})

const applySchema = strictObject({
  source: slug().required(),
  to: anyQuantity().required(),
})

const stepSchema = strictObject({
  id: slug().required(),
  title: line(120).required(),
  how: prose(600),
  why: prose(600).required(),
  watch: prose(300),
  mistakes: yup.array(prose(300).required()).strict(true),
  hazard: prose(400),
  moves: yup.array(moveSchema.required()).strict(true),
  connect: yup.array(hoseSchema.required()).strict(true),
  disconnect: yup.array(slug().required()).strict(true),
  /** What is put on the equipment, as the signal of a calibrator. */
  apply: applySchema.default(undefined).optional(),
  record: recordSchema.default(undefined).optional(),
  /**
   * A valve that the step opens to the customer. In the as-left test it stays shut until the test has
   * passed: what the step says without it, and what is then said to open it.
   */
  untilPassed: strictObject({
    title: line(120).required(),
    why: prose(600).required(),
    element: slug().required(),
    then: line(120).required(),
  })
    .default(undefined)
    .optional(),
})

/** The steps of another procedure, on the main line or on one beside it, as a metered bypass. */
const includeSchema = strictObject({
  include: slug().required(),
  line: slug().required(),
  /** Steps of the other procedure that are left out. */
  without: yup.array(slug().required()).strict(true),
})
export type ProcedureInclude = yup.InferType<typeof includeSchema>

const isInclude = (step: unknown) => typeof step === 'object' && step !== null && 'include' in step
const stepOrInclude = yup.lazy((step) => (isInclude(step) ? includeSchema : stepSchema).required())

const head = {
  id: slug().required(),
  version: integer(1, 9999).required(),
  date: localDate().required(),
  title: line(120).required(),
  kind: line(30).required(),
  school: line(60).required(),
  source: prose(600).required(),
}

/** A procedure with all its steps. */
export const procedureSchema = strictObject({
  ...head,
  steps: yup.array(stepSchema.required()).strict(true).min(1).required(),
})
export type Procedure = yup.InferType<typeof procedureSchema>
export type ProcedureStep = Procedure['steps'][number]
export type StepRecord = NonNullable<ProcedureStep['record']>

/** A procedure as its file says it: steps, and steps taken over from other procedures. */
export const procedureFileSchema = strictObject({
  ...head,
  steps: yup.array(stepOrInclude).strict(true).min(1).required(),
})
export interface ProcedureFile extends Omit<Procedure, 'steps'> {
  readonly steps: readonly (ProcedureStep | ProcedureInclude)[]
}
