import * as yup from 'yup'
import { NotInLibrary, testPlanOf } from '../library'
import { assemblyKinds } from '../assembly'
import { type Dimension, dimensionNames, isUnitOf } from '../quantity'
import { displayed, instant, line, number, slug, strictObject } from '../schema'
import { judgeTest, type Judgement, type TestRun } from '../verdict'
import { CannotCompute, computation } from './computation'

const reading = strictObject({
  item: slug().required(),
  dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames).required(),
  value: displayed().required(),
  unit: line(12).required(),
  takenAt: instant(),
  gaugeAbovePortM: number(-10, 10),
  deviation: number(0, 1e6),
}).test(
  'unit-fits',
  'the unit does not fit the dimension',
  (r) => !r?.dimension || !r.unit || isUnitOf(r.dimension, r.unit),
)

const input = strictObject({
  rulePack: slug().required(),
  kind: yup.string().strict(true).oneOf(assemblyKinds).required(),
  readings: yup.array(reading.required()).strict(true).max(60).required(),
  answers: yup
    .array(strictObject({ item: slug().required(), answer: slug().required() }).required())
    .strict(true)
    .max(60)
    .required(),
  gauge: strictObject({
    percent: number(0, 100).required(),
    of: yup
      .string()
      .strict(true)
      .oneOf(['span', 'reading'] as const)
      .required(),
    span: number(0, 1e6).required(),
    unit: line(12).required(),
  })
    .default(undefined)
    .optional(),
  notBefore: instant(),
})

const output = yup.object({
  outcome: yup.string().required(),
  reason: yup.string().required(),
  decisionRule: yup.string().required(),
  items: yup
    .array(yup.object({ id: yup.string().required(), outcome: yup.string().required() }))
    .required(),
})

export const judgeBackflowTest = computation({
  name: 'judge-backflow-test',
  title: 'Judge a backflow test',
  summary:
    'The verdict of a field test under a rule pack: margins, uncertainty, both decision rules, reasons.',
  source: 'Limits: the rule pack named. Uncertainty: JCGM 100:2008. Decision rules: JCGM 106:2012.',
  input,
  output: output as yup.Schema<unknown>,
  example: {
    rulePack: 'larkhaven-relief-first',
    kind: 'RP',
    readings: [
      { item: 'relief-opening', dimension: 'differential', value: '2.4', unit: 'psi' },
      { item: 'check-1', dimension: 'differential', value: '7.2', unit: 'psi' },
    ],
    answers: [
      { item: 'relief-at-rest', answer: 'dry' },
      { item: 'check-2', answer: 'held' },
      { item: 'shutoff-2', answer: 'tight' },
    ],
    gauge: { percent: 0.25, of: 'span', span: 15, unit: 'psi' },
  },
  run(given, library): Judgement {
    try {
      const { pack, test, procedure } = testPlanOf(library, given.rulePack, given.kind)
      const answers = given.answers.map((a) => {
        const record = procedure.steps.find((s) => s.record?.item === a.item)?.record
        const label = record?.answers?.find((option) => option.id === a.answer)?.label
        if (!label) {
          const known = record?.answers?.map((o) => o.id).join(', ')
          throw new CannotCompute(
            known
              ? `“${a.answer}” is not an answer of ${a.item}: choose ${known}.`
              : `${procedure.title} does not ask “${a.item}”.`,
          )
        }
        return { ...a, label }
      })
      const items = new Set(procedure.steps.flatMap((s) => (s.record ? [s.record.item] : [])))
      for (const r of given.readings) {
        if (!items.has(r.item)) {
          throw new CannotCompute(
            `${procedure.title} does not record “${r.item}”: ${[...items].join(', ')}.`,
          )
        }
      }
      const order = [...given.readings.map((r) => r.item)]
      return judgeTest(pack, test, { ...given, answers, order } as TestRun)
    } catch (error) {
      if (error instanceof NotInLibrary || error instanceof RangeError)
        throw new CannotCompute(error.message)
      throw error
    }
  },
})
