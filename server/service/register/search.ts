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
  readonly access: string
  readonly siteVersion: number
}

export const equipmentColumns = `SELECT e.id, e.tag, e.family, e.kind, e.size_in AS sizeIn, e.serial, e.maker, e.model,
  e.service, e.position, e.set_point AS setPoint, e.nominals, e.station, e.station_place AS stationPlace, e.programme, e.spec_sheet AS specSheet,
  e.installed_on AS installedOn, e.version, t.\`condition\`, t.due_on AS dueOn,
  t.last_tested_on AS lastTestedOn, t.repair_by AS repairBy, s.id AS siteId, s.name AS siteName, s.address,
  s.district, s.access, s.version AS siteVersion, c.id AS customerId, c.name AS customer
  FROM equipment e JOIN equipment_status t ON t.equipment_id = e.id
  JOIN site s ON s.id = e.site_id JOIN customer c ON c.id = s.customer_id`

const SORT_COLUMNS = {
  tag: 'e.tag',
  due: 't.due_on',
  site: 's.name',
  repair: 't.repair_by',
} as const
const SORT_FIELDS = { tag: 'tag', due: 'dueOn', site: 'siteName', repair: 'repairBy' } as const

/** The search as SQL, and how to make the cursor behind a row. */
export function equipmentSql(query: EquipmentQuery, today: string, soon: string, limit: number) {
  const sort = query.sort ?? 'tag'
  const descending = sort.startsWith('-')
  const key = sort.replace('-', '') as keyof typeof SORT_COLUMNS
  const column = SORT_COLUMNS[key]
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
    also(`(${column}, e.id) ${descending ? '<' : '>'} (:last, :lastId)`, 'last', last)
    replacements.lastId = lastId
  }

  const sql = `${equipmentColumns} ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}
    ORDER BY ${column} ${direction}, e.id ${direction} LIMIT :limit`
  return { sql, replacements, cursorOf: (row: FlatEquipment) => [row[SORT_FIELDS[key]], row.id] }
}

/**
 * Every word must begin a word of the entry. Undefined when nothing is searched for, empty when
 * what was typed holds no letter or digit.
 */
function searchExpression(q: string | undefined): string | undefined {
  if (q === undefined || q.trim() === '') return undefined
  return (q.match(/[\p{L}\p{N}]+/gu) ?? []).map((word) => `+${word}*`).join(' ')
}
