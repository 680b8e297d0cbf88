import type { Condition, Role, VisitStateName } from '@uvanta/contract'
import type { EventKind, Station } from '@uvanta/core/visit'
import { DataTypes, type Model, type ModelStatic, type Sequelize } from 'sequelize'

const {
  BLOB,
  BOOLEAN,
  DATE,
  DATEONLY,
  DECIMAL,
  INTEGER,
  JSON: JSON_TYPE,
  STRING,
  TEXT,
  UUID,
} = DataTypes

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

type Table<T extends object> = ModelStatic<Model<T, Partial<T>> & T>

// Sequelize writes into the objects it is given, so each column gets its own.
const id = () => ({ type: UUID, primaryKey: true })
const text = (length: number) => ({ type: STRING(length), allowNull: false })
const date = () => ({ type: DATEONLY, allowNull: true })
const version = () => ({ type: INTEGER, allowNull: false, defaultValue: 1 })

/** The tables as Sequelize sees them; the migrations say what they are. */
export function defineModels(db: Sequelize) {
  const define = <T extends object>(name: string, attributes: object): Table<T> =>
    db.define(name, attributes as never, { tableName: name, freezeTableName: true }) as never

  return {
    people: define<PersonRow>('person', {
      id: id(),
      username: text(40),
      name: text(120),
      roles: JSON_TYPE,
      passwordHash: text(255),
      active: BOOLEAN,
      version: version(),
    }),
    licences: define<LicenceRow>('licence', {
      id: id(),
      personId: UUID,
      kind: text(80),
      number: text(40),
      issuedOn: date(),
      expiresOn: date(),
      version: version(),
    }),
    gauges: define<GaugeRow>('gauge', {
      id: id(),
      tag: text(40),
      serial: text(60),
      maker: text(80),
      span: DECIMAL(12, 4),
      spanUnit: text(12),
      resolution: DECIMAL(12, 6),
      accuracyPercent: DECIMAL(8, 4),
      accuracyOf: text(8),
      active: BOOLEAN,
      version: version(),
    }),
    calibrations: define<CalibrationRow>('calibration', {
      id: id(),
      gaugeId: UUID,
      calibratedOn: date(),
      validUntil: date(),
      certificate: text(60),
    }),
    customers: define<CustomerRow>('customer', {
      id: id(),
      name: text(120),
      contact: text(120),
      phone: text(40),
      version: version(),
    }),
    sites: define<SiteRow>('site', {
      id: id(),
      customerId: UUID,
      name: text(120),
      address: text(200),
      district: text(60),
      access: text(500),
      version: version(),
    }),
    equipment: define<EquipmentRow>('equipment', {
      id: id(),
      siteId: UUID,
      tag: text(40),
      family: text(80),
      kind: text(30),
      sizeIn: text(12),
      serial: text(60),
      maker: text(80),
      model: text(80),
      service: text(12),
      position: text(200),
      setPoint: JSON_TYPE,
      programme: text(80),
      specSheet: STRING(80),
      installedOn: date(),
      anchorOn: date(),
      searchText: TEXT,
      virtualSite: JSON_TYPE,
      version: version(),
    }),
    equipmentStatus: define<EquipmentStatusRow>('equipment_status', {
      equipmentId: { type: UUID, primaryKey: true },
      condition: text(20),
      dueOn: date(),
      lastTestedOn: date(),
      repairBy: date(),
      lastVisitId: UUID,
    }),
    visits: define<VisitTableRow>('visit', {
      id: id(),
      equipmentId: UUID,
      technicianId: UUID,
      plannedOn: date(),
      purpose: text(30),
      state: text(20),
      done: JSON_TYPE,
      skipped: JSON_TYPE,
      outcome: STRING(20),
      certificateId: UUID,
      certificateNumber: STRING(40),
      equipment: JSON_TYPE,
      eventCount: INTEGER,
      headHash: text(64),
    }),
    visitEvents: define<VisitEventRow>('visit_event', {
      visitId: { type: UUID, primaryKey: true },
      seq: { type: INTEGER, primaryKey: true },
      id: UUID,
      kind: text(40),
      payload: TEXT('long'),
      personId: UUID,
      personName: text(120),
      deviceTime: text(30),
      deviceOffset: INTEGER,
      serverTime: text(30),
      hash: text(64),
    }),
    certificates: define<CertificateRow>('certificate', {
      id: id(),
      number: text(40),
      year: INTEGER,
      serial: INTEGER,
      code: text(60),
      visitId: UUID,
      equipmentId: UUID,
      issuedAt: DATE(3),
      outcome: text(20),
      tag: text(40),
      site: text(120),
      technician: text(120),
      supersedes: UUID,
      payload: TEXT('long'),
      jws: TEXT('long'),
    }),
    certificateStatus: define<CertificateStatusRow>('certificate_status', {
      certificateId: { type: UUID, primaryKey: true },
      state: text(12),
      reason: STRING(500),
      supersededBy: UUID,
      changedAt: DATE(3),
      changedBy: STRING(120),
    }),
    certificatePdfs: define<{ certificateId: string; pdf: Buffer }>('certificate_pdf', {
      certificateId: { type: UUID, primaryKey: true },
      pdf: BLOB('long'),
    }),
    certificateCounters: define<{ year: number; last: number }>('certificate_counter', {
      year: { type: INTEGER, primaryKey: true },
      last: INTEGER,
    }),
    signingKeys: define<{ kid: string; publicJwk: object; createdAt: Date }>('signing_key', {
      kid: { type: STRING(60), primaryKey: true },
      publicJwk: JSON_TYPE,
      createdAt: DATE(3),
    }),
    audit: define<AuditRow>('audit', {
      id: { type: INTEGER, primaryKey: true, autoIncrement: true },
      at: DATE(3),
      personId: UUID,
      person: text(120),
      action: text(80),
      subject: text(200),
    }),
  }
}
export type Models = ReturnType<typeof defineModels>
