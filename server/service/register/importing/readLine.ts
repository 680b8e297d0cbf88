import type { DateOrder, ImportColumn, ImportedLine, ImportRequest } from '@uvanta/contract'
import { newEquipmentFields, siteFields } from '@uvanta/contract'
import {
  apparatusOf,
  isNominal,
  type Nominal,
  nominalDimension,
  nominalNames,
} from '@uvanta/core/apparatus'
import { type Family, services, type Service } from '@uvanta/core/catalogue'
import type { Library } from '@uvanta/core/library'
import {
  type FieldFault,
  check,
  InvalidInput,
  line,
  prose,
  strictObject,
} from '@uvanta/core/schema'
import type * as yup from 'yup'
import { amountOf, BadCell, dateOf, oneOf, sizeOf, wholeOf } from './cells'

export type Line = ImportRequest['lines'][number]
export type Fault = ImportedLine['faults'][number]

/** What a line comes to once it is understood. */
const equipmentSchema = strictObject({
  ...newEquipmentFields,
  nominals: newEquipmentFields.nominals.required(),
})
/** Where it stands; address and district are wanted where the register has no such site. */
const placeSchema = strictObject({
  customer: line(120).required(),
  contact: prose(120),
  phone: prose(40),
  site: line(120).required(),
  address: siteFields.address,
  district: siteFields.district,
  access: siteFields.access,
})
export interface Asked {
  readonly equipment: yup.InferType<typeof equipmentSchema>
  readonly place: yup.InferType<typeof placeSchema>
}

/**
 * Understands the cells of one line, by what the library knows.
 * @returns what is asked for, or everything that is wrong with the line
 */
export function readLine(
  { cells }: Pick<Line, 'cells'>,
  library: Library,
  dates: DateOrder,
): { readonly asked: Asked } | { readonly faults: readonly Fault[] } {
  const faults: Fault[] = []
  /** The cell of a column as it was meant, or nothing: with a fault where it says something that cannot be taken. */
  const read = <T>(column: ImportColumn, meant: (cell: string) => T): T | undefined => {
    const cell = cells[column]?.trim()
    if (!cell) return undefined
    try {
      return meant(cell)
    } catch (error) {
      if (!(error instanceof BadCell)) throw error
      faults.push({ column, message: error.message })
      return undefined
    }
  }
  const text = (column: ImportColumn) => read(column, (cell) => cell)

  const family = read('family', (cell) => oneOf(cell, library.families, (f) => [f.title, f.id]))
  const ofKind = read('kind', (cell) => ofTheKind(cell, family ? [family] : library.families))
  const own = ofKind && (family ?? onlyFamily(ofKind.families, faults))
  const kind = ofKind?.kind
  const equipment = {
    tag: text('tag'),
    family: own?.id,
    kind,
    sizeIn: read('sizeIn', sizeOf),
    serial: text('serial'),
    maker: text('maker'),
    model: text('model'),
    specSheet: read(
      'specSheet',
      (cell) => oneOf(cell, library.specSheets, (s) => [`${s.maker} ${s.model}`, s.id]).id,
    ),
    service: read('service', (cell) => oneOf<Service>(cell, services, (s) => [s])) ?? own?.service,
    programme:
      read('programme', (cell) => oneOf(cell, library.programmes, (p) => [p.title, p.id]).id) ??
      own?.programme,
    dueOn: read('dueOn', (cell) => dateOf(cell, dates)),
    installedOn: read('installedOn', (cell) => dateOf(cell, dates)),
    position: text('position'),
    station: text('station'),
    stationPlace: read('stationPlace', wholeOf),
    nominals: nominalsOf(kind, read),
  }
  const place = {
    customer: text('customer'),
    contact: text('contact'),
    phone: text('phone'),
    site: text('site'),
    address: text('address'),
    district: text('district'),
    access: text('access'),
  }
  const checked = {
    equipment: checkedBy(equipmentSchema, equipment),
    place: checkedBy(placeSchema, place),
  }
  if ('value' in checked.equipment && 'value' in checked.place && faults.length === 0)
    return { asked: { equipment: checked.equipment.value, place: checked.place.value } }
  const further = Object.values(checked)
    .flatMap((c) => ('faults' in c ? c.faults : []))
    // What cannot be read is missing besides: once is enough.
    .filter(({ column }) => faults.every((f) => f.column !== column))
    .filter(({ column }) => own || !FOLLOWING.includes(column))
  return { faults: [...faults, ...further] }
}

function checkedBy<T>(
  schema: yup.Schema<T>,
  fields: object,
): { readonly value: T } | { readonly faults: readonly Fault[] } {
  try {
    return { value: check(schema, defined(fields)) }
  } catch (error) {
    if (!(error instanceof InvalidInput)) throw error
    return { faults: error.faults.map(faultOf) }
  }
}

type Read = <T>(column: ImportColumn, meant: (cell: string) => T) => T | undefined

/** What this kind is judged by; a figure that it is not judged by is refused, for it would mean nothing. */
function nominalsOf(kind: string | undefined, read: Read): Nominal[] {
  const names = apparatusOf(kind ?? '')?.nominals ?? []
  return Object.keys(nominalNames)
    .filter(isNominal)
    .flatMap((name) => {
      const value = read(name, (cell) => {
        if (kind && !names.includes(name))
          throw new BadCell(`is nothing that ${kind} is judged by: leave it empty`)
        return amountOf(cell, nominalDimension(name))
      })
      return value ? [{ name, value }] : []
    })
}

/** The kind as the library writes it, and the families that know it. @throws BadCell */
function ofTheKind(cell: string, families: readonly Family[]) {
  const kind = oneOf(cell, [...new Set(families.flatMap((f) => f.kinds))], (k) => [k])
  return { kind, families: families.filter((f) => f.kinds.includes(kind)) }
}

function onlyFamily(families: readonly Family[], faults: Fault[]): Family | undefined {
  if (families.length === 1) return families[0]
  const titles = families.map((f) => f.title).join(', ')
  if (!faults.some((f) => f.column === 'family'))
    faults.push({ column: 'family', message: `is missing: several know this kind, ${titles}` })
  return undefined
}

const defined = (fields: object) =>
  Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined))

const faultOf = ({ path, message }: FieldFault): Fault => ({
  column: path.split(/[.[]/, 1)[0] as ImportColumn,
  message,
})
/** What follows from a kind, where it is known. */
const FOLLOWING: readonly ImportColumn[] = ['family', 'service', 'programme']
