import * as yup from 'yup'
import { slug, strictObject } from '@uvanta/core/schema'
import { endpoint } from './endpoint'
import { list } from './fields'

/** What the core computes for a person by itself. */
export const computations = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/compute',
    summary: 'What can be computed',
    tag: 'Computations',
    access: 'signed-in',
    response: list(
      yup.object({
        name: yup.string().required(),
        title: yup.string().required(),
        summary: yup.string().required(),
        source: yup.string().required(),
        example: yup.mixed().required(),
      }),
    ),
  }),
  run: endpoint({
    method: 'post',
    path: '/api/v1/compute/{name}',
    summary: 'Compute; input and output by the name, see each computation',
    tag: 'Computations',
    access: 'signed-in',
    params: strictObject({ name: slug().required() }),
    body: yup.mixed<object>().required(),
    response: yup.mixed<object>().required(),
  }),
}
