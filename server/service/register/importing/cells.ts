import type { DateOrder } from '@uvanta/contract'
import { type AnyQuantity, type Dimension, unitDefinition, unitsOf } from '@uvanta/core/quantity'

/** A cell that says nothing that can be taken: what it must be, to be read behind the title of its column. */
export class BadCell extends Error {}

/** A number, with a point for its comma. A comma before three digits may stand for thousands: nobody guesses. */
function plainNumber(cell: string): string {
  const number = cell.replaceAll(/\s/g, '')
  if (/,\d{3}$/.test(number))
    throw new BadCell(
      `“${cell}” may be thousands or a fraction: write it without the comma, or with a point`,
    )
  return number.replace(',', '.')
}

const FRACTIONS: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅜': '3/8',
}

/** A size in inches as a decimal: 2, 2", 1 1/2, 1-1/2, 1½, 0,75 in. @throws BadCell */
export function sizeOf(cell: string): string {
  const bare = cell
    .replace(/\s*(in|inch|inches|"|”|″)\.?$/i, '')
    .replaceAll(/[½¼¾⅜]/g, (f) => ` ${FRACTIONS[f]}`)
    .trim()
  const [, whole = '0', over, under] = /^(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)$/.exec(bare) ?? []
  if (over !== undefined && Number(under) > 0)
    return String(Number(whole) + Number(over) / Number(under))
  const size = plainNumber(bare)
  if (/^\d+(\.\d+)?$/.test(size)) return size
  throw new BadCell('must be a size in inches, as 2 or 1 1/2')
}

const BY_ORDER: Readonly<Record<DateOrder, RegExp | undefined>> = {
  'year-first': undefined,
  'day-first': /^(?<d>\d{1,2})[./-](?<m>\d{1,2})[./-](?<y>\d{4})$/,
  'month-first': /^(?<m>\d{1,2})[./-](?<d>\d{1,2})[./-](?<y>\d{4})$/,
}
const YEAR_FIRST = /^(?<y>\d{4})[./-](?<m>\d{1,2})[./-](?<d>\d{1,2})$/

/** A date as 2026-11-24, whichever way round it is written. @throws BadCell */
export function dateOf(cell: string, order: DateOrder): string {
  const { y, m = '', d = '' } = (YEAR_FIRST.exec(cell) ?? BY_ORDER[order]?.exec(cell))?.groups ?? {}
  if (y === undefined)
    throw new BadCell(`“${cell}” is no date in the order that is said for the table`)
  return `${y}-${m.padStart(2, '0')}-${d.padStart(2, '0')}`
}

/** A value with its unit, as 60 psi or 4,2 bar. @throws BadCell */
export function amountOf(cell: string, dimension: Dimension): AnyQuantity {
  const units: readonly string[] = unitsOf(dimension)
  const [, number = '', written = ''] = /^([-+]?[\d.,]+)\s*(\D.*)?$/.exec(cell) ?? []
  const unit = written
    ? units.find((u) => spellingsOf(dimension, u).includes(bare(written)))
    : onlyOf(units)
  if (!number || unit === undefined)
    throw new BadCell(`must be a figure with its unit: ${units.join(', ')}`)
  return { dimension, value: plainNumber(number), unit }
}

/** Where there is but one, it need not be written. */
const onlyOf = (units: readonly string[]) => (units.length === 1 ? units[0] : undefined)

const bare = (unit: string) => unit.toLowerCase().normalize('NFKD').replaceAll(/[\s.]/g, '')
/** A gauge pressure is written psi or psig; one against vacuum, psia, is another thing and is not taken for it. */
const spellingsOf = (dimension: Dimension, unit: string): string[] => [
  bare(unit),
  bare(unitDefinition(dimension, unit).label),
  ...(dimension === 'gaugePressure' ? [`${bare(unit)}g`] : []),
]

/** One of several things that a table may name by id or title, whatever the case. @throws BadCell */
export function oneOf<T>(
  cell: string,
  options: readonly T[],
  namesOf: (option: T) => readonly string[],
): T {
  const asked = cell.toLowerCase()
  const found = options.find((o) => namesOf(o).some((n) => n.toLowerCase() === asked))
  if (found !== undefined) return found
  const known = options.map((o) => namesOf(o)[0]).join(', ')
  throw new BadCell(`“${cell}” is not known here: choose one of ${known}`)
}

/** A whole number. @throws BadCell */
export function wholeOf(cell: string): number {
  if (/^\d{1,9}$/.test(cell)) return Number(cell)
  throw new BadCell('must be a whole number')
}
