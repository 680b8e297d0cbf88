import * as yup from 'yup'
import { throwSymmetry as symmetry } from '../craft'
import { valueToSi } from '../quantity'
import { amount, strictObject } from '../schema'
import { computation } from './computation'

export const throwSymmetry = computation({
  name: 'throw-symmetry',
  title: 'Compare the throws of a shuttle',
  summary:
    'Whether a double-acting shuttle throws equally both ways, or its shaft is in backwards.',
  source:
    'Practice of the trade: projections that differ by more than a tenth are clearly unequal.',
  input: strictObject({ one: amount('length').required(), other: amount('length').required() }),
  output: yup.object({
    equal: yup.boolean().required(),
    difference: yup.number().required(),
    says: yup.string().required(),
  }),
  example: { one: { value: '31', unit: 'mm' }, other: { value: '30', unit: 'mm' } },
  run({ one, other }) {
    const metres = (a: typeof one) => valueToSi('length', Number(a.value), a.unit)
    return symmetry({ one: metres(one), other: metres(other) })
  },
})
