import type { CertificateRow, CertificateStatusRow } from '../../store/tables'
import { keptCursor } from '../paging'
import { escapeLike } from '../register/escapeLike'

export interface CertificateQuery {
  readonly q?: string | undefined
  readonly state?: string | undefined
  readonly equipment?: string | undefined
  readonly cursor?: string | undefined
  readonly limit?: string | undefined
}

/** A certificate as lists show it, with what became of it since. */
export type ListedCertificate = Omit<
  CertificateRow,
  'payload' | 'jws' | 'year' | 'serial' | 'issuedAt'
> & { readonly issuedAt: Date } & Pick<CertificateStatusRow, 'state' | 'reason' | 'supersededBy'>

/** A number as it is printed, or the beginning of one: the rest of the text is then not searched. */
const NUMBER = /^[A-Za-z]{1,6}-\d{4}/

/**
 * The list of certificates as SQL, newest first. Which ones they are is read off an index that holds
 * what is searched; only the rows of the page are then read.
 */
export function certificateSql(query: CertificateQuery, limit: number) {
  const q = query.q?.trim()
  const [at, id] = keptCursor(query.cursor, 2, /^\d{1,15}$/)
  const where = [
    ...(query.equipment ? ['c.equipment_id = :equipment'] : []),
    ...(!q
      ? []
      : NUMBER.test(q)
        ? ['c.number LIKE :begins']
        : [
            '(c.number LIKE :like OR c.tag LIKE :like OR c.site LIKE :like OR c.technician LIKE :like)',
          ]),
    ...(at ? ['c.issued_at <= :at AND (c.issued_at < :at OR c.id < :id)'] : []),
    ...(query.state ? ['t.state = :state'] : []),
  ]
  const index =
    query.equipment || (q && NUMBER.test(q)) ? '' : 'FORCE INDEX (certificate_newest_first)'
  // Few are void or superseded: those are begun with, and sorted.
  const rare = query.state !== undefined && query.state !== 'current'
  const from = rare
    ? 'certificate_status t STRAIGHT_JOIN certificate c ON c.id = t.certificate_id'
    : `certificate c ${index}${query.state ? ' STRAIGHT_JOIN certificate_status t ON t.certificate_id = c.id' : ''}`
  const sql = `SELECT c.id, c.number, c.code, c.visit_id AS visitId, c.equipment_id AS equipmentId,
      c.issued_at AS issuedAt, c.outcome, c.tag, c.site, c.technician, c.supersedes,
      t.state, t.reason, t.superseded_by AS supersededBy
    FROM (SELECT c.id, c.issued_at FROM ${from}
        ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}
        ORDER BY c.issued_at DESC, c.id DESC LIMIT :limit) page
    STRAIGHT_JOIN certificate c ON c.id = page.id
    STRAIGHT_JOIN certificate_status t ON t.certificate_id = c.id
    ORDER BY page.issued_at DESC, page.id DESC`
  const replacements = {
    limit,
    equipment: query.equipment ?? null,
    state: query.state ?? null,
    like: `%${escapeLike(q ?? '')}%`,
    begins: `${escapeLike(q ?? '')}%`,
    at: at ? new Date(Number(at)) : null,
    id: id ?? null,
  }
  return { sql, replacements }
}
