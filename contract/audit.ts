import * as yup from 'yup'
import { strictObject, uuid } from '@uvanta/core/schema'
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

const dailyHead = yup.object({
  /** Day, in UTC. */
  day: yup.string().required(),
  /** JWS in compact serialization, under the published keys. */
  jws: yup.string().required(),
})
/** What stood at the end of a day, in one signed hash. */
export type DailyHead = yup.InferType<typeof dailyHead>

/** Who changed what in the office. */
export const audit = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/audit',
    summary: 'Who changed what in the office, newest first',
    tag: 'Audit',
    access: ['administrator'],
    query: strictObject({ ...pageQuery, person: uuid<'person'>() }),
    response: page(auditLine),
  }),
  heads: endpoint({
    method: 'get',
    path: '/api/v1/heads',
    summary: 'The signed hash of all logs at the end of each day, newest first; no account needed',
    tag: 'Audit',
    access: 'public',
    query: strictObject(pageQuery),
    response: page(dailyHead),
  }),
}
