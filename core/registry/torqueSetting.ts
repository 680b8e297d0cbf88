import * as yup from 'yup'
import { NUT_FACTORS, type Surface, type TorqueAsked, torqueSetting as settingOf } from '../craft'
import { line, number, strictObject } from '../schema'
import { computation } from './computation'

const surface = () =>
  yup
    .string()
    .strict(true)
    .oneOf(Object.keys(NUT_FACTORS) as Surface[])
    .required()

export const torqueSetting = computation({
  name: 'torque-setting',
  title: 'Set a torque wrench',
  summary:
    'What the wrench is set to with lubricant and extension, and whether the torque is plausible for its thread.',
  source:
    'F = T/(K·d), K 0.20 dry and 0.15 lubricated; setting = T·L/(L + E·cos θ); ISO 898-1 stress areas.',
  input: strictObject({
    value: number(0, 1e5).required(),
    unit: line(12).required(),
    thread: line(20),
    statedFor: surface(),
    surface: surface(),
    wrenchM: number(0.01, 5),
    extensionM: number(0, 5),
    angleDeg: number(-180, 180),
  }),
  output: yup.object({
    targetNm: yup.number().required(),
    setting: yup.number().required(),
    unit: yup.string().required(),
    preloadKn: yup.number(),
    stressMpa: yup.number(),
    questions: yup.array().required(),
  }),
  example: {
    value: 80,
    unit: 'N·m',
    thread: 'M12',
    statedFor: 'dry',
    surface: 'lubricated',
    wrenchM: 0.4,
    extensionM: 0.1,
  },
  run: (input) => settingOf(input as TorqueAsked),
})
