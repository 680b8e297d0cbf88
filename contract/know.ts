import * as yup from 'yup'
import { slug, strictObject } from '@uvanta/core/schema'
import { endpoint } from './endpoint'
import { list, page, pageQuery } from './fields'

/** The library, its computations and the audit trail. */
export const know = {
  library: endpoint({
    method: 'get',
    path: '/api/v1/library',
    summary: 'Procedures, rule packs, families and programmes in force',
    tag: 'Library',
    access: 'signed-in',
    response: yup.object({
      procedures: yup.array(yup.mixed<object>().required()).required(),
      rulePacks: yup.array(yup.mixed<object>().required()).required(),
      families: yup.array(yup.mixed<object>().required()).required(),
      programmes: yup.array(yup.mixed<object>().required()).required(),
      guides: yup.array(yup.mixed<object>().required()).required(),
      subGuides: yup.array(yup.mixed<object>().required()).required(),
      specSheets: yup.array(yup.mixed<object>().required()).required(),
      policies: yup.array(yup.mixed<object>().required()).required(),
      earlier: yup.mixed<object>().required(),
    }),
  }),
  libraryState: endpoint({
    method: 'get',
    path: '/api/v1/library/state',
    summary: 'When the library in force was loaded, and what is wrong with the files since',
    tag: 'Library',
    access: 'signed-in',
    response: yup.object({
      loadedAt: yup.string().required(),
      faults: yup
        .array(
          yup.object({
            file: yup.string().defined(),
            line: yup.number().required(),
            message: yup.string().required(),
          }),
        )
        .required(),
    }),
  }),
  gaugeLink: endpoint({
    method: 'get',
    path: '/api/v1/gauge-link',
    summary: 'Where a simulated test gauge answers, if there is one',
    tag: 'Library',
    access: 'signed-in',
    response: yup.object({ url: yup.string().nullable().defined() }),
  }),
  computations: endpoint({
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
  compute: endpoint({
    method: 'post',
    path: '/api/v1/compute/{name}',
    summary: 'Compute; input and output by the name, see each computation',
    tag: 'Computations',
    access: 'signed-in',
    params: strictObject({ name: slug().required() }),
    body: yup.mixed<object>().required(),
    response: yup.mixed<object>().required(),
  }),
  audit: endpoint({
    method: 'get',
    path: '/api/v1/audit',
    summary: 'Who changed what in the office, newest first',
    tag: 'Audit',
    access: ['administrator'],
    query: strictObject(pageQuery),
    response: page(
      yup.object({
        id: yup.number().required(),
        at: yup.string().required(),
        person: yup.string().required(),
        action: yup.string().required(),
        subject: yup.string().required(),
      }),
    ),
  }),
}
