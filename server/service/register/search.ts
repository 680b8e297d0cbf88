import type { Id } from '@uvanta/core/schema'
import type { Equipment, equipmentSorts } from '@uvanta/contract'
import { keptCursor } from '../paging'

export interface EquipmentQuery {
  readonly q?: string | undefined
  readonly family?: string | undefined
  readonly service?: string | undefined
  readonly condition?: string | undefined
  readonly due?: 'overdue' | 'soon' | undefined
  readonly site?: string | undefined
  readonly sort?: (typeof equipmentSorts)[number] | undefined
  readonly cursor?: string | undefined
  readonly limit?: string | undefined
}

/** A row of the register with its site and customer, before it is nested. */
export type FlatEquipment = Omit<Equipment, 'site' | 'setPoint' | 'nominals' | 'lawfulUntil'> & {
  readonly nominals: string | Equipment['nominals'] | null
  readonly setPoint: string | Equipment['setPoint']
  readonly siteId: Id<'site'>
  readonly customerId: Id<'customer'>
  readonly customer: string
  readonly siteName: string
  readonly address: string
  readonly district: string
  readonly siteVersion: number
}

const COLUMNS = `SELECT e.id, e.tag, e.family, e.kind, e.size_in AS sizeIn, e.serial, e.maker, e.model,
  e.service, e.position, e.set_point AS setPoint, e.nominals, e.station, e.station_place AS stationPlace, e.programme, e.spec_sheet AS specSheet,
  e.installed_on AS installedOn, e.version, t.\`condition\`, t.due_on AS dueOn,
  t.last_tested_on AS lastTestedOn, t.repair_by AS repairBy, s.id AS siteId, s.name AS siteName, s.address,
  s.district, s.version AS siteVersion, c.id AS customerId, c.name AS customer`
const PLACE = `STRAIGHT_JOIN site s ON s.id = e.site_id STRAIGHT_JOIN customer c ON c.id = s.customer_id`

/**
 * The tables in the order in which they are read: the one that the list is sorted or found by first,
 * so that a page is read off its index and nothing is sorted. Left to itself the database begins at
 * the smallest table, and sorts all of the register for every page.
 */
const fromEquipment = (index = '') =>
  `FROM equipment e ${index} STRAIGHT_JOIN equipment_status t ON t.equipment_id = e.id ${PLACE}`
const fromStatus = (index = '') =>
  `FROM equipment_status t ${index} STRAIGHT_JOIN equipment e ON e.id = t.equipment_id ${PLACE}`

export const equipmentColumns = `${COLUMNS} ${fromEquipment()}`

interface Sort {
  readonly from: string
  /** What it goes by, and what tells apart rows that agree in it. */
  readonly by: readonly [string, string]
  readonly fields: readonly [keyof FlatEquipment, keyof FlatEquipment]
}
const SORTS: Readonly<Record<'tag' | 'due' | 'site' | 'repair', Sort>> = {
  // A tag is nobody else's: the second one is there to be of one form with the others.
  tag: {
    from: fromEquipment('FORCE INDEX (tag)'),
    by: ['e.tag', 'e.tag'],
    fields: ['tag', 'tag'],
  },
  site: {
    from: fromEquipment('FORCE INDEX (equipment_by_site_name)'),
    by: ['e.site_name', 'e.tag'],
    fields: ['siteName', 'tag'],
  },
  due: {
    from: fromStatus('FORCE INDEX (due_on)'),
    by: ['t.due_on', 't.equipment_id'],
    fields: ['dueOn', 'id'],
  },
  repair: {
    from: fromStatus('FORCE INDEX (equipment_status_by_repair)'),
    by: ['t.repair_by', 't.equipment_id'],
    fields: ['repairBy', 'id'],
  },
}

/** The search as SQL, and how to make the cursor behind a row. */
export function equipmentSql(query: EquipmentQuery, today: string, soon: string, limit: number) {
  const sort = query.sort ?? 'tag'
  const descending = sort.startsWith('-')
  const key = sort.replace('-', '') as keyof typeof SORTS
  const { by, fields, from } = SORTS[key]
  const [first, second] = by
  const direction = descending ? 'DESC' : 'ASC'
  const where: string[] = []
  const replacements: Record<string, unknown> = { limit, today, soon }
  const also = (sql: string, name?: string, value?: unknown) => {
    where.push(sql)
    if (name) replacements[name] = value
  }

  const words = searchExpression(query.q)
  if (words === '') also('FALSE')
  else if (words) also('MATCH (e.search_text) AGAINST (:words IN BOOLEAN MODE)', 'words', words)
  if (query.family) also('e.family = :family', 'family', query.family)
  if (query.service) also('e.service = :service', 'service', query.service)
  if (query.site) also('e.site_id = :site', 'site', query.site)
  if (query.condition) also('t.`condition` = :condition', 'condition', query.condition)
  if (query.due === 'overdue') also('t.due_on < :today')
  if (query.due === 'soon') also('t.due_on BETWEEN :today AND :soon')
  if (key === 'repair') also('t.repair_by IS NOT NULL')
  const [last, lastId] = keptCursor(query.cursor, 2)
  if (last !== undefined) {
    const [over, orAt] = descending ? ['<', '<='] : ['>', '>=']
    // Written as a range, which a comparison of pairs is not taken for.
    if (first === second) also(`${first} ${over} :last`, 'last', last)
    else
      also(
        `${first} ${orAt} :last AND (${first} ${over} :last OR ${second} ${over} :lastId)`,
        'last',
        last,
      )
    replacements.lastId = lastId
  }
  const order = first === second ? [first] : [first, second]

  const sql = `${COLUMNS} ${startOf(query, words, from)} ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}
    ORDER BY ${order.map((column) => `${column} ${direction}`).join(', ')} LIMIT :limit`
  return { sql, replacements, cursorOf: (row: FlatEquipment) => fields.map((f) => row[f]) }
}

/** Where few rows are found by something else than the order, that is begun with, and they are sorted. */
function startOf(query: EquipmentQuery, words: string | undefined, from: string): string {
  const byFamily = query.family && from === SORTS.tag.from
  if (words || query.site || byFamily) return fromEquipment()
  return query.condition ? fromStatus() : from
}

/**
 * Every word must begin a word of the entry. Undefined when nothing is searched for, empty when
 * what was typed holds no letter or digit.
 */
function searchExpression(q: string | undefined): string | undefined {
  if (q === undefined || q.trim() === '') return undefined
  return (q.match(/[\p{L}\p{N}]+/gu) ?? []).map((word) => `+${word}*`).join(' ')
}
