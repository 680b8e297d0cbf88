import * as yup from 'yup'
import { type Nominal, nominalFault } from '@uvanta/core/apparatus'
import { services } from '@uvanta/core/catalogue'
import type { AnyQuantity } from '@uvanta/core/quantity'
import {
  anyQuantity,
  displayed,
  integer,
  line,
  localDate,
  prose,
  slug,
  strictObject,
  uuid,
} from '@uvanta/core/schema'
import { nominalList } from '@uvanta/core/visit'
import { endpoint } from './endpoint'
import { idParams, list, page, pageQuery, searchWords, version } from './fields'
import { importedLine, importRequest } from './registerImport'
import { conditions } from './words'

/** Nominal values that equipment can have: an accuracy class of 90 % is refused when it is entered. */
const nominalsInBounds = () =>
  nominalList().test(
    'in-bounds',
    ({ value }: { value?: unknown }) => boundsFault(value) ?? '',
    (list: unknown) => boundsFault(list) === null,
  )

function boundsFault(list: unknown): string | null {
  if (!Array.isArray(list)) return null
  for (const { name, value } of list as Nominal[]) {
    const fault = nominalFault(name, value)
    if (fault) return fault
  }
  return null
}

const place = {
  id: uuid<'site'>().required(),
  customerId: uuid<'customer'>().required(),
  customer: line(120).required(),
  name: line(120).required(),
  address: line(200).required(),
  district: line(60).required(),
  version: version(),
}

export const siteSchema = yup.object({ ...place, access: yup.string().defined() })
export type Site = yup.InferType<typeof siteSchema>

export const customerSchema = yup.object({
  id: uuid<'customer'>().required(),
  name: line(120).required(),
  contact: yup.string().defined(),
  phone: yup.string().defined(),
  version: version(),
  sites: yup.array(siteSchema.required()).required(),
})
export type Customer = yup.InferType<typeof customerSchema>

export const equipmentSchema = yup.object({
  id: uuid<'equipment'>().required(),
  tag: line(40).required(),
  family: slug().required(),
  kind: line(30).required(),
  sizeIn: displayed().required(),
  serial: line(60).required(),
  maker: line(80).required(),
  model: yup.string().defined(),
  service: yup.string().oneOf(services).required(),
  position: line(200).required(),
  setPoint: yup
    .object({
      dimension: yup.string().required(),
      value: yup.string().required(),
      unit: yup.string().required(),
    })
    .nullable()
    .default(null),
  /** What else it is judged by, as its relief set point. */
  nominals: nominalsInBounds().required(),
  /** The station that it is a part of: its name at the site, and its place in the line, the inlet being 1. */
  station: yup.string().nullable().defined(),
  stationPlace: yup.number().nullable().defined(),
  programme: slug().required(),
  specSheet: yup.string().nullable().defined(),
  installedOn: yup.string().nullable().defined(),
  /** Where it stands; how to get in there is said with a visit, to who goes. */
  site: yup.object(place).required(),
  condition: yup.string().oneOf(conditions).required(),
  dueOn: yup.string().nullable().defined(),
  /** The last day on which the next test is still within the programme’s rule. */
  lawfulUntil: yup.string().nullable().defined(),
  lastTestedOn: yup.string().nullable().defined(),
  repairBy: yup.string().nullable().defined(),
  version: version(),
})
export type Equipment = yup.InferType<typeof equipmentSchema>

/** Nominal values of equipment, its set point among them. */
export const nominalsOf = ({
  setPoint,
  nominals,
}: Pick<Equipment, 'setPoint' | 'nominals'>): Nominal[] => [
  ...(setPoint ? [{ name: 'set-point' as const, value: setPoint as AnyQuantity }] : []),
  ...nominals.filter((n) => n.name !== 'set-point'),
]

const visitSummary = yup.object({
  visitId: uuid<'visit'>().required(),
  plannedOn: localDate().required(),
  state: yup.string().required(),
  outcome: yup.string().nullable().defined(),
  technician: yup.string().required(),
  certificateId: yup.string().nullable().defined(),
  certificateNumber: yup.string().nullable().defined(),
  /** How it was found, and titles of the required items that failed then. */
  found: yup.string().nullable().defined(),
  failedAsFound: yup.array(yup.string().required()).required(),
  /** What was tightened, lubricated and set: a sentence each. */
  service: yup.array(yup.string().required()).required(),
  /** What was written of it: repairs and notes, the latest last. */
  remarks: yup.array(yup.string().required()).required(),
  /** Last reading of each item, as found and as left. */
  readings: yup
    .array(
      yup
        .object({
          run: yup.string().required(),
          item: yup.string().required(),
          value: yup.string().required(),
          unit: yup.string().required(),
          dimension: yup.string().required(),
        })
        .required(),
    )
    .required(),
})
export type VisitSummary = yup.InferType<typeof visitSummary>

const editors = ['planner', 'administrator'] as const
export const equipmentSorts = [
  'tag',
  '-tag',
  'due',
  '-due',
  'site',
  '-site',
  'repair',
  '-repair',
] as const

/** What is entered of a piece of equipment. */
const equipmentFields = {
  siteId: uuid<'site'>(),
  tag: line(40),
  family: slug(),
  kind: line(30),
  sizeIn: displayed(),
  serial: line(60),
  maker: line(80),
  model: prose(80),
  service: yup.string().strict(true).oneOf(services),
  position: line(200),
  setPoint: anyQuantity().nullable().default(undefined).optional(),
  nominals: nominalsInBounds(),
  station: line(60).nullable(),
  stationPlace: integer(1, 50).nullable(),
  programme: slug(),
  specSheet: slug().nullable(),
  installedOn: localDate().nullable(),
  dueOn: localDate(),
}

const { siteId: _site, setPoint: _setPoint, ...own } = equipmentFields
/** What of it cannot be left out of the register; where it stands, and its set point, apart. */
export const newEquipmentFields = {
  ...own,
  tag: own.tag.required(),
  family: own.family.required(),
  kind: own.kind.required(),
  sizeIn: own.sizeIn.required(),
  serial: own.serial.required(),
  maker: own.maker.required(),
  service: own.service.required(),
  position: own.position.required(),
  programme: own.programme.required(),
  dueOn: own.dueOn.required(),
}

const customerFields = { name: line(120), contact: prose(120), phone: prose(40) }
export const siteFields = {
  name: line(120),
  address: line(200),
  district: line(60),
  access: prose(500),
}

export const register = {
  listEquipment: endpoint({
    method: 'get',
    path: '/api/v1/equipment',
    summary: 'Search the equipment',
    tag: 'Register',
    access: 'signed-in',
    query: strictObject({
      ...pageQuery,
      q: searchWords,
      family: slug(),
      service: yup.string().strict(true).oneOf(services),
      condition: yup.string().strict(true).oneOf(conditions),
      due: yup
        .string()
        .strict(true)
        .oneOf(['overdue', 'soon'] as const),
      site: uuid<'site'>(),
      sort: yup.string().strict(true).oneOf(equipmentSorts),
    }),
    response: page(equipmentSchema),
  }),
  readEquipment: endpoint({
    method: 'get',
    path: '/api/v1/equipment/{id}',
    summary: 'One piece of equipment',
    tag: 'Register',
    access: 'signed-in',
    params: idParams<'equipment'>(),
    response: equipmentSchema,
  }),
  history: endpoint({
    method: 'get',
    path: '/api/v1/equipment/{id}/history',
    summary: 'Visits and readings of one piece of equipment, newest first',
    tag: 'Register',
    access: 'signed-in',
    params: idParams<'equipment'>(),
    response: list(visitSummary),
  }),
  station: endpoint({
    method: 'get',
    path: '/api/v1/equipment/{id}/station',
    summary:
      'The station that a piece of equipment is a part of, in the order of the line; empty where it is none',
    tag: 'Register',
    access: 'signed-in',
    params: idParams<'equipment'>(),
    response: list(equipmentSchema),
  }),
  createEquipment: endpoint({
    method: 'post',
    path: '/api/v1/equipment',
    summary: 'Add equipment',
    tag: 'Register',
    access: editors,
    body: strictObject({
      ...newEquipmentFields,
      setPoint: equipmentFields.setPoint,
      id: uuid<'equipment'>().required(),
      siteId: equipmentFields.siteId.required(),
    }),
    response: equipmentSchema,
  }),
  changeEquipment: endpoint({
    method: 'patch',
    path: '/api/v1/equipment/{id}',
    summary: 'Change equipment',
    tag: 'Register',
    access: editors,
    versioned: true,
    params: idParams<'equipment'>(),
    body: strictObject(equipmentFields),
    response: equipmentSchema,
  }),
  changeService: endpoint({
    method: 'post',
    path: '/api/v1/equipment/{id}/service',
    summary: 'Take equipment out of service, or put it back: then it is due at once',
    tag: 'Register',
    access: editors,
    versioned: true,
    params: idParams<'equipment'>(),
    body: strictObject({
      inService: yup.boolean().strict(true).required(),
      why: prose(300).required('is missing: say why'),
    }),
    response: equipmentSchema,
  }),
  importEquipment: endpoint({
    method: 'post',
    path: '/api/v1/equipment/import',
    summary: 'Look at lines of a table, or bring them in: equipment with its sites and customers',
    tag: 'Register',
    access: editors,
    body: importRequest,
    response: list(importedLine),
  }),
  listCustomers: endpoint({
    method: 'get',
    path: '/api/v1/customers',
    summary: 'Customers with their sites, by words of either',
    tag: 'Register',
    access: 'signed-in',
    query: strictObject({ ...pageQuery, q: searchWords }),
    response: page(customerSchema),
  }),
  createCustomer: endpoint({
    method: 'post',
    path: '/api/v1/customers',
    summary: 'Add a customer',
    tag: 'Register',
    access: editors,
    body: strictObject({
      ...customerFields,
      id: uuid<'customer'>().required(),
      name: customerFields.name.required(),
    }),
    response: customerSchema,
  }),
  changeCustomer: endpoint({
    method: 'patch',
    path: '/api/v1/customers/{id}',
    summary: 'Change a customer: name, and whom to call',
    tag: 'Register',
    access: editors,
    versioned: true,
    params: idParams<'customer'>(),
    body: strictObject(customerFields),
    response: customerSchema,
  }),
  listSites: endpoint({
    method: 'get',
    path: '/api/v1/sites',
    summary: 'Sites, by words of their name or address',
    tag: 'Register',
    access: 'signed-in',
    query: strictObject({ q: searchWords, customer: uuid<'customer'>() }),
    response: list(siteSchema),
  }),
  createSite: endpoint({
    method: 'post',
    path: '/api/v1/sites',
    summary: 'Add a site',
    tag: 'Register',
    access: editors,
    body: strictObject({
      ...siteFields,
      id: uuid<'site'>().required(),
      customerId: uuid<'customer'>().required(),
      name: siteFields.name.required(),
      address: siteFields.address.required(),
      district: siteFields.district.required(),
    }),
    response: siteSchema,
  }),
  changeSite: endpoint({
    method: 'patch',
    path: '/api/v1/sites/{id}',
    summary: 'Change a site: name, address, and how to get in',
    tag: 'Register',
    access: editors,
    versioned: true,
    params: idParams<'site'>(),
    body: strictObject(siteFields),
    response: siteSchema,
  }),
}
