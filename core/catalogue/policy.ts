import * as yup from 'yup'
import { renewalPolicies, type RenewalPolicy } from '../guide'
import { integer, line, localDate, prose, slug, strictObject } from '../schema'

export const policySchema = strictObject({
  family: slug().required(),
  version: integer(1, 9999).required(),
  policy: yup
    .string<RenewalPolicy>()
    .strict(true)
    .oneOf(Object.keys(renewalPolicies) as RenewalPolicy[])
    .required(),
  since: localDate().required(),
  /** Who put it in force. */
  by: line(120).required(),
  why: prose(400).required(),
})
export type FamilyPolicy = yup.InferType<typeof policySchema>
