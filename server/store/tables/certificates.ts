import {
  belongsTo,
  blob,
  int,
  json,
  key,
  longText,
  moment,
  nullable,
  text,
  unique,
  uuid,
} from '../column'
import { type RowOf, table } from '../table'

export const certificate = table(
  'certificate',
  {
    id: key(uuid<'certificate'>()),
    number: unique(text(40)),
    year: int(),
    serial: int(),
    code: unique(text(60)),
    visitId: belongsTo(uuid<'visit'>(), 'visit', 'visit', 'certificates'),
    equipmentId: uuid<'equipment'>(),
    issuedAt: moment(),
    outcome: text(20),
    tag: text(40),
    site: text(120),
    technician: text(120),
    supersedes: nullable(uuid<'certificate'>()),
    payload: longText(),
    jws: longText(),
  },
  {
    keys: ['UNIQUE (year, serial)', 'INDEX (equipment_id)'],
    // Holds all that the list is searched by, so that a search reads no certificate.
    laterKeys: { 'certificate-newest-first': 'issued_at, id, number, tag, site, technician' },
    appendOnly: true,
  },
)
export type CertificateRow = RowOf<typeof certificate>

export const certificateStatus = table(
  'certificate_status',
  {
    certificateId: belongsTo(key(uuid<'certificate'>()), 'certificate', 'certificate', 'status'),
    state: text<'current' | 'superseded' | 'void'>(12),
    reason: nullable(text(500)),
    supersededBy: nullable(uuid<'certificate'>()),
    changedAt: moment(),
    changedBy: nullable(text(120)),
  },
  { keys: ['INDEX (state)'] },
)
export type CertificateStatusRow = RowOf<typeof certificateStatus>

export const certificatePdf = table(
  'certificate_pdf',
  {
    certificateId: belongsTo(key(uuid<'certificate'>()), 'certificate', 'certificate', 'pdf'),
    pdf: blob(),
  },
  { appendOnly: true },
)

export const certificateCounter = table('certificate_counter', { year: key(int()), last: int() })

export const signingKey = table('signing_key', {
  kid: key(text(60)),
  publicJwk: json<object>(),
  createdAt: moment(),
})
