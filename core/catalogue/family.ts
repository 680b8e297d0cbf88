import * as yup from 'yup'
import { integer, line, slug, strictObject } from '../schema'

export const services = ['water', 'gas', 'air', 'product'] as const
export type Service = (typeof services)[number]

export const familySchema = strictObject({
  id: slug().required(),
  version: integer(1, 9999).required(),
  title: line(120).required(),
  group: line(60).required(),
  service: yup.string().strict(true).oneOf(services).required(),
  kinds: yup.array(line(30).required()).strict(true).min(1).required(),
  programme: slug().required(),
})
export type Family = yup.InferType<typeof familySchema>
