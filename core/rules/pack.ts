import * as yup from 'yup'
import { displayed, integer, line, localDate, prose, slug, strictObject } from '../schema'
import { type PackItem, packItemSchema } from './basis'
import { decisionRules } from './decision'

const contradictionSchema = strictObject({
  item: slug().required(),
  mayNotExceed: slug().required(),
  /** Nor may the two be equal. */
  orEqual: yup.boolean().strict(true),
  says: prose(300).required(),
})

const packTestSchema = strictObject({
  kind: line(30).required(),
  procedure: slug().required(),
  items: yup.array(packItemSchema).strict(true).min(1).required(),
  contradictions: yup.array(contradictionSchema.required()).strict(true),
})

export const rulePackSchema = strictObject({
  id: slug().required(),
  version: integer(1, 9999).required(),
  title: line(120).required(),
  authority: line(120).required(),
  effectiveFrom: localDate().required(),
  source: prose(600).required(),
  decisionRule: yup.string().strict(true).oneOf(decisionRules).required(),
  /** Test uncertainty ratio under which a reading is questioned, usually 4. */
  questionTurUnder: displayed().required(),
  licence: slug().required(),
  /** What is done with a setting that has drifted within its tolerance. */
  setting: yup
    .string()
    .strict(true)
    .oneOf(['leave-within-tolerance', 'return-to-nominal'] as const),
  tests: yup.array(packTestSchema.required()).strict(true).min(1).required(),
})

/** The test of one kind of equipment: the procedure that records, and the items that are judged. */
export interface PackTest {
  readonly kind: string
  readonly procedure: string
  readonly items: readonly PackItem[]
  readonly contradictions?: readonly yup.InferType<typeof contradictionSchema>[] | undefined
}

export interface RulePack extends Omit<yup.InferType<typeof rulePackSchema>, 'tests'> {
  readonly tests: readonly PackTest[]
}
