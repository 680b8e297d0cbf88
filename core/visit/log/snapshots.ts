import * as yup from 'yup'
import { displayed, line, localDate, number, slug, strictObject, uuid } from '../../schema'

/** What of the equipment a visit is about, as the register had it when the visit was planned. */
export const equipmentSnapshot = strictObject({
  id: uuid().required(),
  tag: line(40).required(),
  family: slug().required(),
  kind: line(30).required(),
  sizeIn: displayed().required(),
  serial: line(60).required(),
  maker: line(80).required(),
  service: line(20).required(),
  position: line(200).required(),
  /** Spec sheet of its model, where one is known. */
  specSheet: slug(),
  site: line(120).required(),
  address: line(200).required(),
  customer: line(120).required(),
})

export const gaugeSnapshot = strictObject({
  id: uuid().required(),
  tag: line(40).required(),
  serial: line(60).required(),
  accuracyPercent: number(0, 100).required(),
  accuracyOf: yup
    .string()
    .strict(true)
    .oneOf(['span', 'reading'] as const)
    .required(),
  span: number(0, 1e6).required(),
  spanUnit: line(12).required(),
  calibratedOn: localDate().required(),
  calibrationUntil: localDate().required(),
  calibrationCertificate: line(60).required(),
})

export const licenceSnapshot = strictObject({
  kind: slug().required(),
  number: line(40).required(),
  expiresOn: localDate().required(),
})
