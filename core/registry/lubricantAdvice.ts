import * as yup from 'yup'
import {
  type Elastomer,
  elastomers,
  type Lubricant,
  lubricantAdvice as adviceFor,
  lubricants,
  type LubricantService,
  lubricantServices,
} from '../craft'
import { strictObject } from '../schema'
import { computation } from './computation'

const oneOf = <T extends string>(table: Readonly<Record<T, string>>) =>
  yup
    .string<T>()
    .strict(true)
    .oneOf(Object.keys(table) as T[])
    .required()

export const lubricantAdvice = computation({
  name: 'lubricant-advice',
  title: 'Choose a lubricant',
  summary: 'Whether a lubricant suits a rubber in a service, why, and what suits instead.',
  source:
    'General compatibility of rubbers with petroleum, silicone and synthetic bases; the maker’s sheet governs.',
  input: strictObject({
    elastomer: oneOf<Elastomer>(elastomers),
    lubricant: oneOf<Lubricant>(lubricants),
    service: oneOf<LubricantService>(lubricantServices),
  }),
  output: yup.object({
    verdict: yup.string().required(),
    reasons: yup.array().required(),
    instead: yup.array().required(),
  }),
  example: { elastomer: 'epdm', lubricant: 'petrolatum', service: 'drinking-water' },
  run: ({ elastomer, lubricant, service }) => adviceFor(elastomer, lubricant, service),
})
