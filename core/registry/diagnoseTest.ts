import { judgeTest, type Reading, type TestRun } from '../rules'
import * as yup from 'yup'
import { apparatusKinds, nominalsInSi } from '../apparatus'
import { foundOf, hasModel, predictions, rank } from '../diagnosis'
import { CannotCompute } from '../errors'
import { testPlanOf } from '../library'
import { toSi } from '../quantity'
import { number, quantityOf, strictObject } from '../schema'
import { nominalList } from '../visit'
import { computation } from './computation'
import { answersOf, foundFields } from './foundFields'

const input = strictObject({
  ...foundFields(apparatusKinds),
  /** in */
  sizeIn: number(0.1, 40).required(),
  /** Pressure in the line, noted before the test. */
  linePressure: quantityOf('gaugePressure').required(),
  /** Nominal values of the equipment, as its set point. */
  nominals: nominalList(),
})

const output = yup.object({
  explained: yup.boolean().required(),
  sound: yup.number().required(),
  pairs: yup.array().required(),
  suspects: yup
    .array(
      yup.object({
        element: yup.string().required(),
        chance: yup.number().required(),
        faults: yup.array().required(),
      }),
    )
    .required(),
  next: yup.array().required(),
})

export const diagnoseTest = computation({
  name: 'diagnose-test',
  title: 'Say what may be wrong',
  summary:
    'What a failed test may come from: parts and their faults by likelihood, what each is known by, and the check that would tell most.',
  source:
    'Bayes’ rule over a hydraulic model of the kind with one fault at a time; how often each is met is an order of the trade, no statistic. A model, not the equipment at hand.',
  input,
  output: output as yup.Schema<unknown>,
  heavy: true,
  example: {
    rulePack: 'larkhaven-relief-first',
    kind: 'DC',
    sizeIn: 2,
    linePressure: { dimension: 'gaugePressure', value: '70', unit: 'psi' },
    readings: [
      { item: 'check-1', dimension: 'differential', value: '0.3', unit: 'psi' },
      { item: 'check-2', dimension: 'differential', value: '2.0', unit: 'psi' },
    ],
    answers: [],
  },
  run({ rulePack, kind, sizeIn, linePressure, nominals = [], ...given }, library) {
    if (!hasModel(kind)) {
      throw new CannotCompute(
        'kind-without-model',
        `There is no model of a ${kind}.`,
        'Look at its parts.',
      )
    }
    const plan = testPlanOf(library, rulePack, kind)
    const { procedure } = plan
    const answers = answersOf(procedure, given)
    const order = [...given.readings, ...answers].map((r) => r.item)
    const onPlate = Object.fromEntries(
      nominals.map((n) => [n.name, n.value]),
    ) as TestRun['nominals']
    const run: TestRun = {
      readings: given.readings as Reading[],
      answers,
      order,
      ...(onPlate ? { nominals: onPlate } : {}),
    }
    const found = foundOf(run, judgeTest(plan, run).items)
    const site = {
      kind,
      sizeIn,
      supplyKpa: toSi(linePressure as Parameters<typeof toSi>[0]),
      nominals: nominalsInSi(nominals as Parameters<typeof nominalsInSi>[0]),
    }
    const made = [...predictions(procedure, site)].filter((p) => p !== null)
    return rank(kind, found, made)
  },
})
