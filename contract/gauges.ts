import * as yup from 'yup'
import { displayed, line, localDate, number, strictObject, uuid } from '@uvanta/core/schema'
import { instrumentUnits } from '@uvanta/core/instrument'
import { endpoint } from './endpoint'
import { idParams, list, version } from './fields'

export const calibrationSchema = yup.object({
  id: uuid<'calibration'>().required(),
  calibratedOn: localDate().required(),
  validUntil: localDate().required(),
  certificate: line(60).required(),
})
export type Calibration = yup.InferType<typeof calibrationSchema>

export const gaugeSchema = yup.object({
  id: uuid<'gauge'>().required(),
  tag: line(40).required(),
  serial: line(60).required(),
  maker: line(80).required(),
  span: displayed().required(),
  spanUnit: line(12).required(),
  resolution: displayed().required(),
  accuracyPercent: number(0, 100).required(),
  accuracyOf: yup
    .string()
    .oneOf(['span', 'reading'] as const)
    .required(),
  active: yup.boolean().required(),
  version: version(),
  calibrations: yup.array(calibrationSchema.required()).required(),
})
export type Gauge = yup.InferType<typeof gaugeSchema>

const fields = {
  tag: line(40),
  serial: line(60),
  maker: line(80),
  span: displayed(),
  spanUnit: yup
    .string()
    .strict(true)
    .oneOf([...instrumentUnits], `must be one of ${instrumentUnits.join(', ')}`),
  resolution: displayed(),
  accuracyPercent: number(0.001, 20),
  accuracyOf: yup
    .string()
    .strict(true)
    .oneOf(['span', 'reading'] as const),
}

export const gauges = {
  link: endpoint({
    method: 'get',
    path: '/api/v1/gauge-link',
    summary: 'Where a simulated test gauge answers, if there is one',
    tag: 'Gauges',
    access: 'signed-in',
    response: yup.object({ url: yup.string().nullable().defined() }),
  }),
  list: endpoint({
    method: 'get',
    path: '/api/v1/gauges',
    summary: 'Test gauges with their calibrations',
    tag: 'Gauges',
    access: 'signed-in',
    response: list(gaugeSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/api/v1/gauges',
    summary: 'Add a gauge',
    tag: 'Gauges',
    access: ['administrator'],
    body: strictObject({
      id: uuid<'gauge'>().required(),
      tag: fields.tag.required(),
      serial: fields.serial.required(),
      maker: fields.maker.required(),
      span: fields.span.required(),
      spanUnit: fields.spanUnit.required(),
      resolution: fields.resolution.required(),
      accuracyPercent: fields.accuracyPercent.required(),
      accuracyOf: fields.accuracyOf.required(),
    }),
    response: gaugeSchema,
  }),
  change: endpoint({
    method: 'patch',
    path: '/api/v1/gauges/{id}',
    summary: 'Change a gauge',
    tag: 'Gauges',
    access: ['administrator'],
    versioned: true,
    params: idParams<'gauge'>(),
    body: strictObject({ ...fields, active: yup.boolean().strict(true) }),
    response: gaugeSchema,
  }),
  addCalibration: endpoint({
    method: 'post',
    path: '/api/v1/gauges/{id}/calibrations',
    summary: 'Enter a calibration',
    tag: 'Gauges',
    access: ['administrator'],
    params: idParams<'gauge'>(),
    body: strictObject({
      id: uuid<'calibration'>().required(),
      calibratedOn: localDate().required(),
      validUntil: localDate().required(),
      certificate: line(60).required(),
    }).test(
      'in-order',
      'the calibration ends before it begins: check both dates',
      (v: { calibratedOn?: string; validUntil?: string } | undefined) =>
        !v?.calibratedOn || !v.validUntil || v.calibratedOn <= v.validUntil,
    ),
    response: gaugeSchema,
  }),
}
