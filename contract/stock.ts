import * as yup from 'yup'
import { integer, line, strictObject, uuid } from '@uvanta/core/schema'
import { endpoint } from './endpoint'
import { list } from './fields'

export const stockItemSchema = yup.object({
  number: yup.string().required(),
  title: yup.string().required(),
  maker: yup.string().defined(),
  model: yup.string().defined(),
  family: yup.string().defined(),
  held: yup
    .array(
      yup
        .object({
          holderId: uuid<'person'>().required(),
          holder: yup.string().defined(),
          quantity: yup.number().integer().required(),
        })
        .required(),
    )
    .required(),
  /** Some came in: what nobody has is not there. */
  kept: yup.boolean().required(),
  /** Kept back for visits on which work goes on. */
  reserved: yup
    .array(
      yup
        .object({
          visitId: uuid<'visit'>().required(),
          holderId: uuid<'person'>().required(),
          tag: yup.string().required(),
          on: yup.string().required(),
        })
        .required(),
    )
    .required(),
})
export type StockItem = yup.InferType<typeof stockItemSchema>

/** Kits on the vans. */
export const stock = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/stock',
    summary: 'Kits of the spec sheets and how many each technician has',
    tag: 'Stock',
    access: 'signed-in',
    response: list(stockItemSchema),
  }),
  move: endpoint({
    method: 'post',
    path: '/api/v1/stock',
    summary: 'Kits that came in, or a count that was put right',
    tag: 'Stock',
    access: ['planner', 'administrator'],
    body: strictObject({
      id: uuid<'stock-move'>().required(),
      number: line(60).required(),
      holderId: uuid<'person'>().required(),
      change: integer(-500, 500).required(),
      reason: line(200).required(),
    }),
    response: list(stockItemSchema),
  }),
}
