import { type DateOrder, type ImportColumn, importColumns, LONGEST_CELL } from '@uvanta/contract'
import { isNominal } from '@uvanta/core/apparatus'
import type { Table } from '@/workers/table'

/** Which heading of a table, by its place, says what of a piece of equipment. */
export type Columns = { readonly [C in ImportColumn]?: number }

/** What columns are called elsewhere, besides their own titles. */
const SPELLINGS: { readonly [C in ImportColumn]?: readonly string[] } = {
  tag: ['asset', 'asset id', 'asset number', 'equipment', 'equipment id', 'equipment number'],
  family: ['group'],
  kind: ['type', 'equipment type', 'assembly type'],
  sizeIn: ['size', 'size in', 'nominal size'],
  serial: ['serial number', 'serial no', 's/n'],
  maker: ['manufacturer', 'make'],
  model: ['model number', 'model no'],
  dueOn: ['due', 'due date', 'next test', 'next test date', 'due on'],
  installedOn: ['installed on', 'install date', 'date installed'],
  position: ['location', 'where', 'place'],
  customer: ['owner', 'account', 'customer name', 'account name'],
  contact: ['contact', 'contact person'],
  phone: ['phone', 'phone number', 'tel'],
  site: ['site name', 'premises', 'facility'],
  address: ['street', 'site address', 'service address'],
  district: ['area', 'zone', 'town'],
  access: ['access', 'access note', 'directions'],
  'set-point': ['set pressure', 'setpoint', 'outlet pressure'],
  'relief-set': ['relief set pressure', 'relief set'],
}

const plain = (text: string) => text.toLowerCase().replaceAll(/[^\p{L}\p{N}]/gu, '')
/** Set point, psi; Set point (psi); Set point [psi] */
const UNIT = /\s*(?:,\s*([^,()[\]]+)|[([]([^()[\]]+)[)\]])\s*$/

const spelled = (heading: string) => [plain(heading), plain(heading.replace(UNIT, ''))]

/** The columns that the headings name by themselves, each once. */
export function matchedColumns(headings: readonly string[]): Columns {
  const names = Object.keys(importColumns) as ImportColumn[]
  const taken = new Set<number>()
  const found: { [C in ImportColumn]?: number } = {}
  for (const name of names) {
    // Its own title goes before what it may be called elsewhere.
    const known = [importColumns[name], name, ...(SPELLINGS[name] ?? [])].map(plain)
    const at = known
      .map((says) => headings.findIndex((h, n) => !taken.has(n) && spelled(h).includes(says)))
      .find((n) => n >= 0)
    if (at === undefined) continue
    found[name] = at
    taken.add(at)
  }
  return found
}

/** The cells of a line under the names of the register; a figure takes the unit of its heading where it has none. */
export function cellsOf(
  { cells }: Table['lines'][number],
  columns: Columns,
  headings: readonly string[],
): { [C in ImportColumn]?: string } {
  const said: { [C in ImportColumn]?: string } = {}
  for (const [name, at] of Object.entries(columns) as [ImportColumn, number][]) {
    const cell = cells[at] ?? ''
    if (cell === '') continue
    const [, behind, within] = UNIT.exec(headings[at] ?? '') ?? []
    const unit = isNominal(name) && /^[-+]?[\d.,]+$/.test(cell) ? (behind ?? within) : undefined
    said[name] = (unit ? `${cell} ${unit.trim()}` : cell).slice(0, LONGEST_CELL)
  }
  return said
}

/** Everything that a table says is a date. */
export const datesOf = ({ lines }: Table, columns: Columns): string[] =>
  [columns.dueOn, columns.installedOn].flatMap((at) =>
    at === undefined ? [] : lines.map((l) => l.cells[at] ?? ''),
  )

/** The order of day and month that the dates themselves give away; where none does, nobody guesses. */
export function orderOf(dates: readonly string[]): DateOrder {
  for (const date of dates) {
    const [, first, second] = /^(\d{1,2})[./-](\d{1,2})[./-]\d{4}$/.exec(date) ?? []
    if (Number(first) > 12) return 'day-first'
    if (Number(second) > 12) return 'month-first'
  }
  return 'year-first'
}
