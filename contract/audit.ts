import * as yup from 'yup'
import { strictObject } from '@uvanta/core/schema'
import { endpoint } from './endpoint'
import { page, pageQuery } from './fields'

const auditLine = yup.object({
  id: yup.number().required(),
  at: yup.string().required(),
  person: yup.string().required(),
  action: yup.string().required(),
  subject: yup.string().required(),
})
export type AuditLine = yup.InferType<typeof auditLine>

/** Who changed what in the office. */
export const audit = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/audit',
    summary: 'Who changed what in the office, newest first',
    tag: 'Audit',
    access: ['administrator'],
    query: strictObject(pageQuery),
    response: page(auditLine),
  }),
}
