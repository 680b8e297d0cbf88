import * as yup from 'yup'
import { type Library, testPlanOf } from '../library'
import { type Nominal } from '../apparatus'
import { assemblyKinds } from '../apparatus/backflow'
import { regulatorKinds } from '../apparatus/regulator'
import { instant, quantityOf, slug, strictObject } from '../schema'
import { nominalList } from '../visit'
import { judgeTest, type Judgement, type TestRun } from '../rules'
import { computation } from './computation'
import { answersOf, foundFields } from './foundFields'
import { asChannel, gaugeAccuracy } from './gaugeAccuracy'

const inputOf = (kinds: readonly string[]) =>
  strictObject({
    ...foundFields(kinds),
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
  const answers = answersOf(plan.procedure, given)
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
        psi('half-load', '59.0'),
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
