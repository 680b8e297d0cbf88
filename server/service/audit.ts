import type { Person } from '@uvanta/contract'
import { Op, type Transaction } from 'sequelize'
import type { App } from '../context'
import { triedAgain } from '../store/triedAgain'
import { keptCursor, makeCursor, pageSize } from './paging'
import { auditWords, sealNew } from './integrity/seals'

/**
 * Changes something and writes who did it, in one transaction: neither stands without the other.
 * @param action in a few words, as “added a gauge”
 * @returns what the change answers
 */
export const audited = <T>(
  app: App,
  person: Pick<Person, 'id' | 'name'>,
  action: string,
  subject: string,
  change: (transaction: Transaction) => Promise<T>,
): Promise<T> =>
  triedAgain(() =>
    app.db.sequelize.transaction(async (transaction) => {
      const changed = await change(transaction)
      await recordAudit(app, person, action, subject, transaction)
      return changed
    }),
  )

/** As much as a line of the audit has room for. */
const MOST = 1_000

/** Writes one line of who did what in the office, sealed, in the transaction of the change. */
export async function recordAudit(
  app: App,
  person: Pick<Person, 'id' | 'name'>,
  action: string,
  subject: string,
  transaction: Transaction,
): Promise<void> {
  const row = await app.db.audit.create(
    {
      at: app.now().toJSDate(),
      personId: person.id,
      person: person.name,
      action: action.slice(0, 80),
      subject: subject.slice(0, MOST),
    },
    { transaction },
  )
  await sealNew(app, 'audit', String(row.id), auditWords(row), transaction)
}

export async function listAudit(
  app: App,
  query: {
    cursor?: string | undefined
    limit?: string | undefined
    /** Only what this person changed. */
    person?: string | undefined
  },
) {
  const [last] = keptCursor(query.cursor, 1, /^\d{1,10}$/)
  const limit = pageSize(query.limit)
  const rows = await app.db.audit.findAll({
    where: {
      ...(last ? { id: { [Op.lt]: Number(last) } } : {}),
      ...(query.person ? { personId: query.person } : {}),
    },
    order: [['id', 'DESC']],
    limit: limit + 1,
  })
  const items = rows.slice(0, limit).map((r) => ({
    id: r.id,
    at: r.at.toISOString(),
    person: r.person,
    action: r.action,
    subject: r.subject,
  }))
  return { items, next: rows.length > limit ? makeCursor([items.at(-1)?.id]) : null }
}
