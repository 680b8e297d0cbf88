import type { Condition, Role, VisitStateName } from '@uvanta/contract'
import type { EventKind, Station } from '@uvanta/core/visit'

export interface PersonRow {
  id: string
  username: string
  name: string
  roles: Role[]
  passwordHash: string
  active: boolean
  version: number
}
export interface LicenceRow {
  id: string
  personId: string
  kind: string
  number: string
  issuedOn: string
  expiresOn: string
  version: number
}
export interface GaugeRow {
  id: string
  tag: string
  serial: string
  maker: string
  span: string
  spanUnit: string
  resolution: string
  accuracyPercent: string
  accuracyOf: 'span' | 'reading'
  active: boolean
  version: number
}
export interface CalibrationRow {
  id: string
  gaugeId: string
  calibratedOn: string
  validUntil: string
  certificate: string
}
export interface CustomerRow {
  id: string
  name: string
  contact: string
  phone: string
  version: number
}
export interface SiteRow {
  id: string
  customerId: string
  name: string
  address: string
  district: string
  access: string
  version: number
}
export interface EquipmentRow {
  id: string
  siteId: string
  tag: string
  family: string
  kind: string
  sizeIn: string
  serial: string
  maker: string
  model: string
  service: 'water' | 'gas' | 'air' | 'product'
  position: string
  setPoint: { dimension: string; value: string; unit: string } | null
  programme: string
  specSheet: string | null
  installedOn: string | null
  /** Any due date of this equipment; its day and month are the anchor. */
  anchorOn: string
  /** Words to search by, kept with site and customer. */
  searchText: string
  /** The demo's hidden condition behind the equipment; null in real use. */
  virtualSite: object | null
  version: number
}
export interface EquipmentStatusRow {
  equipmentId: string
  condition: Condition
  dueOn: string | null
  lastTestedOn: string | null
  repairBy: string | null
  lastVisitId: string | null
}
export interface VisitTableRow {
  id: string
  equipmentId: string
  technicianId: string
  plannedOn: string
  purpose: string
  state: VisitStateName
  done: Station[]
  skipped: Station[]
  outcome: string | null
  certificateId: string | null
  certificateNumber: string | null
  equipment: object
  eventCount: number
  headHash: string
}
export interface VisitEventRow {
  visitId: string
  seq: number
  id: string
  kind: EventKind
  payload: string
  /** Form of the payload, from 1. */
  version: number
  personId: string
  personName: string
  deviceTime: string
  deviceOffset: number
  serverTime: string
  hash: string
}
export interface CertificateRow {
  id: string
  number: string
  year: number
  serial: number
  code: string
  visitId: string
  equipmentId: string
  issuedAt: Date
  outcome: string
  tag: string
  site: string
  technician: string
  supersedes: string | null
  payload: string
  jws: string
}
export interface CertificateStatusRow {
  certificateId: string
  state: 'current' | 'superseded' | 'void'
  reason: string | null
  supersededBy: string | null
  changedAt: Date
  changedBy: string | null
}
export interface AuditRow {
  id: number
  at: Date
  personId: string | null
  person: string
  action: string
  subject: string
}
export interface LibraryVersionRow {
  kind: 'guide' | 'spec-sheet' | 'procedure' | 'rule-pack' | 'family' | 'programme' | 'policy'
  id: string
  version: number
  hash: string
  content: string
  firstSeenAt: Date
}
/** What only the holder of the seal key can have written: of a visit’s head, a photograph, an audit line. */
export interface SealRow {
  kind: 'visit' | 'photo' | 'audit'
  id: string
  seal: string
}
/** How many of a kind are sealed, itself sealed. */
export interface SealTotalRow {
  kind: SealRow['kind']
  total: number
  seal: string
}
export interface WrongPasswordRow {
  /** A person, an address, or both together. */
  subject: string
  count: number
  since: Date
}
export interface StockMoveRow {
  id: string
  at: Date
  /** Number of the kit. */
  number: string
  holderId: string
  change: number
  reason: string
  visitId: string | null
  person: string
}
export interface PhotoRow {
  id: string
  visitId: string
  mime: string
  content: Buffer
  personId: string
  at: Date
}
