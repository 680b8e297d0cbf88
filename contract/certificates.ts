import * as yup from 'yup'
import { prose, strictObject, uuid } from '@uvanta/core/schema'
import { endpoint } from './endpoint'
import { idParams, page, pageQuery, searchWords } from './fields'
import { certificateStates } from './words'

export const certificateSchema = yup.object({
  id: uuid<'certificate'>().required(),
  number: yup.string().required(),
  issuedAt: yup.string().required(),
  state: yup.string().oneOf(certificateStates).required(),
  stateReason: yup.string().nullable().defined(),
  supersededBy: yup.string().nullable().defined(),
  supersedes: yup.string().nullable().defined(),
  outcome: yup.string().required(),
  visitId: uuid<'visit'>().required(),
  equipmentId: uuid<'equipment'>().required(),
  tag: yup.string().required(),
  site: yup.string().required(),
  technician: yup.string().required(),
  /** Path of the page on which anyone can verify it; absent for trainees. */
  verifyPath: yup.string().optional(),
})
export type CertificateRow = yup.InferType<typeof certificateSchema>

export const certificateDetail = certificateSchema.shape({
  payload: yup.mixed<object>().required(),
})
export type CertificateDetail = yup.InferType<typeof certificateDetail>

export const verificationSchema = yup.object({
  verdict: yup
    .string()
    .oneOf(['genuine', 'superseded', 'void', 'altered', 'forgotten', 'unknown'] as const)
    .required(),
  reason: yup.string().nullable().defined(),
  /** Code of the certificate that took its place. */
  replacedBy: yup.string().nullable().defined(),
  payload: yup.mixed<object>().nullable().defined(),
  /** What a genuine certificate that stands says of the equipment today. */
  means: yup
    .object({
      state: yup
        .string()
        .oneOf(['passed', 'failed', 'temporary', 'overdue', 'overtaken', 'not-assessed'] as const)
        .required(),
      on: yup.string(),
    })
    .nullable()
    .defined(),
  /** Code of a later certificate of the same equipment, where there is one. */
  later: yup.string().nullable().defined(),
  /** Whom to ask. */
  utility: yup.object({ name: yup.string().required(), phone: yup.string().defined() }).required(),
})
export type Verification = yup.InferType<typeof verificationSchema>

const reason = strictObject({ reason: prose(500).min(3, 'must say why').required() })
const code = strictObject({ code: yup.string().strict(true).max(60).required() })

export const certificates = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/certificates',
    summary: 'Certificates, newest first',
    tag: 'Certificates',
    access: 'signed-in',
    query: strictObject({
      ...pageQuery,
      q: searchWords,
      state: yup.string().strict(true).oneOf(certificateStates),
      equipment: uuid<'equipment'>(),
    }),
    response: page(certificateSchema),
  }),
  read: endpoint({
    method: 'get',
    path: '/api/v1/certificates/{id}',
    summary: 'A certificate with its content',
    tag: 'Certificates',
    access: 'signed-in',
    params: idParams<'certificate'>(),
    response: certificateDetail,
  }),
  pdf: endpoint({
    method: 'get',
    path: '/api/v1/certificates/{id}/pdf',
    summary: 'The certificate as PDF',
    tag: 'Certificates',
    access: 'signed-in',
    params: idParams<'certificate'>(),
    file: 'application/pdf',
  }),
  jws: endpoint({
    method: 'get',
    path: '/api/v1/certificates/{id}/jws',
    summary: 'The signed certificate, JWS compact serialization',
    tag: 'Certificates',
    access: 'signed-in',
    params: idParams<'certificate'>(),
    file: 'application/jose',
  }),
  void: endpoint({
    method: 'post',
    path: '/api/v1/certificates/{id}/void',
    summary: 'Declare a certificate void, with the reason',
    tag: 'Certificates',
    access: ['reviewer'],
    params: idParams<'certificate'>(),
    body: reason,
    response: certificateDetail,
  }),
  supersede: endpoint({
    method: 'post',
    path: '/api/v1/certificates/{id}/supersede',
    summary: 'Issue a new certificate from the corrected log in place of this one',
    tag: 'Certificates',
    access: ['reviewer', 'technician'],
    params: idParams<'certificate'>(),
    body: reason,
    response: certificateDetail,
  }),
  verify: endpoint({
    method: 'get',
    path: '/api/v1/verify/{code}',
    summary: 'Whether a certificate is genuine and current; no account needed',
    tag: 'Verification',
    access: 'public',
    params: code,
    response: verificationSchema,
  }),
  verifyJws: endpoint({
    method: 'get',
    path: '/api/v1/verify/{code}/jws',
    summary: 'The signed certificate for anyone who holds its code',
    tag: 'Verification',
    access: 'public',
    params: code,
    file: 'application/jose',
  }),
}
