import * as yup from 'yup'
import { renewalPolicies, type RenewalPolicy } from '../guide'
import { partKinds } from '../machine'
import { integer, line, localDate, prose, slug, strictObject } from '../schema'

const policyName = () =>
  yup
    .string<RenewalPolicy>()
    .strict(true)
    .oneOf(Object.keys(renewalPolicies) as RenewalPolicy[])
    .required()

export const policySchema = strictObject({
  family: slug().required(),
  version: integer(1, 9999).required(),
  policy: policyName(),
  since: localDate().required(),
  /** Who put it in force. */
  by: line(120).required(),
  why: prose(400).required(),
  /** Kinds of parts for which another rule holds than for the rest. */
  classes: yup
    .array(
      strictObject({
        kinds: yup
          .array(yup.string().strict(true).oneOf(partKinds).required())
          .strict(true)
          .min(1)
          .required(),
        policy: policyName(),
        why: prose(400).required(),
      }).required(),
    )
    .strict(true)
    .min(1),
  /** Points in which practitioners differ, and in which this house does as the others of the sheet do. */
  otherwise: yup
    .array(strictObject({ point: line(160).required(), why: prose(400).required() }).required())
    .strict(true)
    .min(1),
})
export type FamilyPolicy = yup.InferType<typeof policySchema>
