import * as yup from 'yup'
import type { Procedure } from '../procedure'
import { type Dimension, dimensionNames, dimensionTitles, isUnitOf } from '../quantity'
import type { Answer } from '../rules'
import { displayed, instant, line, number, slug, strictObject } from '../schema'
import { CannotCompute } from '../errors'

const reading = strictObject({
  item: slug().required(),
  dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames).required(),
  value: displayed().required(),
  unit: line(12).required(),
  takenAt: instant(),
  gaugeAbovePortM: number(-10, 10),
  deviation: number(0, 1e6),
  driftPerMinute: number(-1e6, 1e6),
  swing: number(0, 1e6),
  heldS: number(0, 86_400),
}).test(
  'unit-fits',
  'the unit does not fit the dimension',
  (r: { dimension?: Dimension; unit?: string } | undefined) =>
    !r?.dimension || !r.unit || isUnitOf(r.dimension, r.unit),
)

/** What was found by the test of a rule pack, as far as it was made. */
export const foundFields = (kinds: readonly string[]) => ({
  rulePack: slug().required(),
  kind: yup.string().strict(true).oneOf(kinds).required(),
  readings: yup.array(reading.required()).strict(true).max(60).required(),
  answers: yup
    .array(strictObject({ item: slug().required(), answer: slug().required() }).required())
    .strict(true)
    .max(60)
    .required(),
})

/**
 * The answers with the words of their procedure.
 * @throws CannotCompute for a reading or an answer that the procedure does not take, or not like that
 */
export function answersOf(
  procedure: Procedure,
  found: {
    readonly readings: readonly yup.InferType<typeof reading>[]
    readonly answers: readonly { readonly item: string; readonly answer: string }[]
  },
): Answer[] {
  for (const r of found.readings) refuseStrange(procedure, r)
  return found.answers.map((a) => ({ ...a, label: labelOf(procedure, a) }))
}

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
