import * as yup from 'yup'
import { assemblyKinds } from '../apparatus/backflow'
import {
  anyQuantity,
  displayed,
  integer,
  line,
  localDate,
  prose,
  slug,
  strictObject,
} from '../schema'

export const requirements = ['required', 'advisory', 'recorded'] as const
export type Requirement = (typeof requirements)[number]

const packItemSchema = strictObject({
  id: slug().required(),
  title: line(80).required(),
  basis: yup
    .string()
    .strict(true)
    .oneOf(['limit', 'difference', 'answer'] as const)
    .required(),
  requirement: yup.string().strict(true).oneOf(requirements).required(),
  atLeast: anyQuantity().default(undefined).optional(),
  atMost: anyQuantity().default(undefined).optional(),
  minuend: slug(),
  subtrahend: slug(),
  accept: yup.array(slug().required()).strict(true).min(1),
  /** Items that lose their meaning when this answer is not an accepted one, or is not given. */
  invalidates: yup.array(slug().required()).strict(true),
  /** Items that must have been read before this one. */
  after: yup.array(slug().required()).strict(true),
  /** What an answer that is not accepted says of the items it invalidates, and of its own line unless `says` does. */
  reason: prose(300),
  says: prose(300),
}).test(
  'shape',
  'a limit needs one of atLeast and atMost, a difference needs minuend, subtrahend and a limit, an answer needs accept',
  (i) => {
    if (!i?.basis) return true
    const limited = Boolean(i.atLeast) !== Boolean(i.atMost)
    if (i.basis === 'answer') return Boolean(i.accept)
    return i.basis === 'limit' ? limited : limited && Boolean(i.minuend && i.subtrahend)
  },
)

const contradictionSchema = strictObject({
  item: slug().required(),
  mayNotExceed: slug().required(),
  /** Nor may the two be equal. */
  orEqual: yup.boolean().strict(true),
  says: prose(300).required(),
})

const packTestSchema = strictObject({
  kind: yup.string().strict(true).oneOf(assemblyKinds).required(),
  procedure: slug().required(),
  items: yup.array(packItemSchema.required()).strict(true).min(1).required(),
  contradictions: yup.array(contradictionSchema.required()).strict(true),
})

export const decisionRules = ['simple', 'guarded'] as const
export type DecisionRule = (typeof decisionRules)[number]

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
  tests: yup.array(packTestSchema.required()).strict(true).min(1).required(),
})
export type RulePack = yup.InferType<typeof rulePackSchema>
export type PackTest = RulePack['tests'][number]
export type PackItem = PackTest['items'][number]
