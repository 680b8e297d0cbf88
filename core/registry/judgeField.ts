import * as yup from 'yup'
import { type Library, testPlanOf } from '../library'
import { type Nominal } from '../apparatus'
import { assemblyKinds } from '../apparatus/backflow'
import { regulatorKinds } from '../apparatus/regulator'
import type { Procedure } from '../procedure'
import { type Dimension, dimensionNames, dimensionTitles, isUnitOf } from '../quantity'
import { displayed, instant, line, number, quantityOf, slug, strictObject } from '../schema'
import { nominalList } from '../visit'
import { judgeTest, type Judgement, type TestRun } from '../rules'
import { CannotCompute } from '../errors'
import { computation } from './computation'
import { asChannel, gaugeAccuracy } from './gaugeAccuracy'

const reading = strictObject({
  item: slug().required(),
  dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames).required(),
  value: displayed().required(),
  unit: line(12).required(),
  takenAt: instant(),
  gaugeAbovePortM: number(-10, 10),
  deviation: number(0, 1e6),
  driftPerMinute: number(-1e6, 1e6),
  heldS: number(0, 86_400),
}).test(
  'unit-fits',
  'the unit does not fit the dimension',
  (r: { dimension?: Dimension; unit?: string } | undefined) =>
    !r?.dimension || !r.unit || isUnitOf(r.dimension, r.unit),
)

const inputOf = (kinds: readonly string[]) =>
  strictObject({
    rulePack: slug().required(),
    kind: yup.string().strict(true).oneOf(kinds).required(),
    readings: yup.array(reading.required()).strict(true).max(60).required(),
    answers: yup
      .array(strictObject({ item: slug().required(), answer: slug().required() }).required())
      .strict(true)
      .max(60)
      .required(),
    /** Items in the order in which they were taken, readings and answers together. */
    order: yup.array(slug().required()).strict(true).max(120),
    gauge: gaugeAccuracy().default(undefined).optional(),
    linePressure: quantityOf('gaugePressure').default(undefined).optional(),
    notBefore: instant(),
    /** Nominal values of the equipment, as its set point. */
    nominals: nominalList(),
  })
type Input = yup.InferType<ReturnType<typeof inputOf>>

const output = yup.object({
  outcome: yup.string().required(),
  reason: yup.string().required(),
  decisionRule: yup.string().required(),
  items: yup
    .array(yup.object({ id: yup.string().required(), outcome: yup.string().required() }))
    .required(),
})

const SOURCE =
  'Limits: the rule pack named. Uncertainty: JCGM 100:2008. Decision rules: JCGM 106:2012.'

const judging = (
  about: { name: string; title: string; summary: string; example: Input },
  kinds: readonly string[],
) =>
  computation({
    ...about,
    source: SOURCE,
    input: inputOf(kinds),
    output: output as yup.Schema<unknown>,
    run: judged,
  })

function judged(given: Input, library: Library): Judgement {
  const plan = testPlanOf(library, given.rulePack, given.kind)
  const answers = given.answers.map((a) => ({ ...a, label: labelOf(plan.procedure, a) }))
  for (const r of given.readings) refuseStrange(plan.procedure, r)
  const order = given.order ?? given.readings.map((r) => r.item)
  const { gauge, nominals = [], ...run } = given
  const channels = gauge ? [asChannel(gauge)] : []
  const named = Object.fromEntries(nominals.map((n: Nominal) => [n.name, n.value]))
  return judgeTest(plan, { ...run, answers, order, channels, nominals: named } as TestRun)
}

export const judgeBackflowTest = judging(
  {
    name: 'judge-backflow-test',
    title: 'Judge a backflow test',
    summary:
      'The verdict of a field test under a rule pack: margins, uncertainty, both decision rules, reasons.',
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
      order: ['relief-at-rest', 'shutoff-2', 'relief-opening', 'check-2', 'check-1'],
      gauge: { percent: 0.25, of: 'span', span: 15, unit: 'psi' },
    },
  },
  assemblyKinds,
)

const psi = (item: string, value: string) => ({
  item,
  dimension: 'gaugePressure' as const,
  value,
  unit: 'psi',
})
const coefficient = (name: 'regulator-cv' | 'relief-cv', value: string): Nominal => ({
  name,
  value: { dimension: 'flowCoefficient', value, unit: 'Cv' },
})
const rated = (name: Nominal['name'], value: string): Nominal => ({
  name,
  value: { dimension: 'gaugePressure', value, unit: 'psi' },
})

export const judgeRegulatorRun = judging(
  {
    name: 'judge-regulator-run',
    title: 'Judge a regulator run',
    summary:
      'The verdict of a regulator run: set, lock-up and creep by class, relief start and reseat, the order of protection, and the limit of what lies behind.',
    example: {
      rulePack: 'larkhaven-gas-at-flow',
      kind: 'spring regulator',
      readings: [
        psi('inlet', '90.0'),
        psi('running', '60.2'),
        psi('set', '60.4'),
        psi('lock-up', '62.0'),
        { ...psi('creep', '62.1'), heldS: 300 },
        psi('load', '57.9'),
        psi('relief-start', '69.5'),
        psi('reseat', '66.8'),
      ],
      answers: [
        { item: 'vent', answer: 'clear' },
        { item: 'breath', answer: 'still' },
        { item: 'outside', answer: 'none' },
      ],
      nominals: [
        rated('set-point', '60'),
        rated('relief-set', '70'),
        rated('maop', '66'),
        rated('inlet-maximum', '150'),
        coefficient('regulator-cv', '0.5'),
        coefficient('relief-cv', '4'),
      ],
      gauge: { percent: 0.5, of: 'reading', span: 200, unit: 'psi' },
    },
  },
  regulatorKinds,
)

export const judgeCheckValve = judging(
  {
    name: 'judge-check-valve',
    title: 'Judge a check valve',
    summary:
      'The verdict of a check valve: what opens it, whether it moves fully, whether it leaks when shut, and whether every ring is accounted for.',
    example: {
      rulePack: 'larkhaven-valves-and-actuators',
      kind: 'check valve',
      readings: [
        psi('air', '80.0'),
        psi('cracking', '42.0'),
        { item: 'bubbles', dimension: 'frequency', value: '0', unit: '/min' },
      ],
      answers: [
        { item: 'moves', answer: 'full' },
        { item: 'product', answer: 'dry' },
        { item: 'contact', answer: 'all-round' },
        { item: 'rings', answer: 'three' },
        { item: 'outside', answer: 'none' },
      ],
      nominals: [rated('supply', '80')],
    },
  },
  ['check valve'],
)

const recordOf = (procedure: Procedure, item: string) =>
  procedure.steps.find((s) => s.record?.item === item)?.record

function labelOf(procedure: Procedure, { item, answer }: { item: string; answer: string }): string {
  const options = recordOf(procedure, item)?.answers
  const label = options?.find((option) => option.id === answer)?.label
  if (label) return label
  if (!options)
    throw new CannotCompute(
      'item-unknown',
      `${procedure.title} does not ask “${item}”.`,
      'Leave it out.',
    )
  throw new CannotCompute(
    'answer-unknown',
    `“${answer}” is not an answer of ${item}.`,
    `Choose ${options.map((o) => o.id).join(', ')}.`,
  )
}

/** A reading that no step of the procedure takes, or not like that. */
function refuseStrange(procedure: Procedure, r: yup.InferType<typeof reading>): void {
  const record = recordOf(procedure, r.item)
  if (record?.ask !== 'reading') {
    const known = procedure.steps.flatMap((s) =>
      s.record?.ask === 'reading' ? [s.record.item] : [],
    )
    throw new CannotCompute(
      'item-unknown',
      `${procedure.title} does not record “${r.item}” as a reading.`,
      `Choose one of ${known.join(', ')}.`,
    )
  }
  if (record.dimension && record.dimension !== r.dimension) {
    const [wanted, given] = [record.dimension, r.dimension].map((d) => dimensionTitles[d])
    throw new CannotCompute(
      'dimension',
      `${record.title} is a ${wanted}, not a ${given}.`,
      'Give it as one.',
    )
  }
  if (r.gaugeAbovePortM !== undefined && !record.head) {
    throw new CannotCompute(
      'head-cancels-out',
      `${record.title} is read with both hoses on, where the height of the gauge cancels out.`,
      'Leave gaugeAbovePortM out.',
    )
  }
}
