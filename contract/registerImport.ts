import * as yup from 'yup'
import { type NominalName, nominalNames } from '@uvanta/core/apparatus'
import { integer, strictObject, uuid } from '@uvanta/core/schema'
import { MOST_LINES } from './limits'

/** What a line of a utility’s table may say of a piece of equipment and of where it stands, with the titles people read. */
const ownColumns = {
  tag: 'Tag',
  family: 'Family',
  kind: 'Kind',
  sizeIn: 'Size, in',
  serial: 'Serial',
  maker: 'Maker',
  model: 'Model',
  specSheet: 'Spec sheet',
  service: 'Service',
  programme: 'Programme',
  dueOn: 'Next due',
  installedOn: 'Installed',
  position: 'Position',
  station: 'Station',
  stationPlace: 'Place in the line',
  customer: 'Customer',
  contact: 'Whom to call',
  phone: 'Telephone',
  site: 'Site',
  address: 'Address',
  district: 'District',
  access: 'How to get in',
} as const
export type ImportColumn = keyof typeof ownColumns | NominalName
export const importColumns: Readonly<Record<ImportColumn, string>> = {
  ...ownColumns,
  ...nominalNames,
}

/** Without these no line can be brought in; family, service and programme follow from the kind where it is of one family. */
export const neededColumns = [
  'tag',
  'kind',
  'sizeIn',
  'serial',
  'maker',
  'dueOn',
  'position',
  'customer',
  'site',
] as const satisfies readonly ImportColumn[]

/** How a table writes its dates; a year of four digits in front is read whatever is said. */
export const dateOrders = ['year-first', 'day-first', 'month-first'] as const
export type DateOrder = (typeof dateOrders)[number]

const columnNames = Object.keys(importColumns) as ImportColumn[]
const ofEach = <K extends string, V>(keys: readonly K[], value: V): Record<K, V> =>
  Object.fromEntries(keys.map((k) => [k, value])) as Record<K, V>

/** Longer than anything that is kept: what is wrong with a line is said of the line, and lets the others be. */
export const LONGEST_CELL = 1000
const cell = yup.string().strict(true).max(LONGEST_CELL)

export const importRequest = strictObject({
  lines: yup
    .array(
      strictObject({
        /** Where it stands in the table, the headings being line 1. */
        line: integer(2, 1_000_000).required(),
        /** The id of the equipment, if it is new. */
        id: uuid<'equipment'>().required(),
        cells: strictObject(ofEach(columnNames, cell)).required(),
      }).required(),
    )
    .strict(true)
    .min(1)
    .max(MOST_LINES)
    .required(),
  dates: yup.string().strict(true).oneOf(dateOrders).required(),
  /** Whether they are brought in, or only looked at. */
  keep: yup.boolean().strict(true).required(),
})
export type ImportRequest = yup.InferType<typeof importRequest>

export const lineOutcomes = ['new', 'there', 'refused'] as const
export const importedLine = yup.object({
  line: yup.number().required(),
  /** Not in the register before; already there as the line says; or not brought in. */
  outcome: yup.string().oneOf(lineOutcomes).required(),
  faults: yup
    .array(
      yup
        .object({
          column: yup.string().oneOf(columnNames).required(),
          /** A sentence behind the title of the column. */
          message: yup.string().required(),
        })
        .required(),
    )
    .required(),
})
export type ImportedLine = yup.InferType<typeof importedLine>
