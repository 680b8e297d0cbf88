import type { Customer, Person } from '@uvanta/contract'
import { IndexHints, Op } from 'sequelize'
import type { App } from '../../context'
import type { CustomerRow } from '../../store/tables'
import { audited } from '../audit'
import { notFound } from '../errors'
import { madeOnce } from '../madeOnce'
import { keptCursor, makeCursor, pageSize } from '../paging'
import { changedFields, changedValues } from './changedFields'
import { seesContacts } from './contacts'
import { escapeLike } from './escapeLike'
import { followName } from './followName'
import { sitesOf } from './sites'
import { changeVersioned } from './versioned'

/** A word that is found at more sites than these is no word to find a customer by. */
const MOST_SITES = 500

export async function listCustomers(
  app: App,
  actor: Person,
  query: { q?: string | undefined; cursor?: string | undefined; limit?: string | undefined },
) {
  const limit = pageSize(query.limit)
  const [name, id] = keptCursor(query.cursor, 2)
  const named = query.q ? { name: { [Op.like]: `%${escapeLike(query.q)}%` } } : undefined
  const at = named
    ? await app.db.sites.findAll({
        attributes: ['customerId'],
        where: named,
        order: [['name', 'ASC']],
        indexHints: [BY_NAME],
        limit: MOST_SITES,
      })
    : []
  const rows = await app.db.customers.findAll({
    where: {
      [Op.and]: [
        ...(named ? [{ [Op.or]: [named, { id: at.map((s) => s.customerId) }] }] : []),
        // As a range besides, so that a later page is read off the index like the first.
        ...(name !== undefined && id !== undefined
          ? [
              { name: { [Op.gte]: name } },
              { [Op.or]: [{ name: { [Op.gt]: name } }, { id: { [Op.gt]: id } }] },
            ]
          : []),
      ],
    },
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
    indexHints: [BY_NAME],
    limit: limit + 1,
  })
  const shown = rows.slice(0, limit)
  const last = shown.at(-1)
  return {
    items: await withSites(app, actor, shown),
    next: rows.length > limit && last ? makeCursor([last.name, last.id]) : null,
  }
}
const BY_NAME = { type: IndexHints.FORCE, values: ['name'] }

async function readCustomer(app: App, actor: Person, id: string): Promise<Customer> {
  const rows = await app.db.customers.findAll({ where: { id } })
  const [customer] = await withSites(app, actor, rows)
  if (!customer) throw notFound('customer')
  return customer
}

async function withSites(
  app: App,
  actor: Person,
  rows: readonly CustomerRow[],
): Promise<Customer[]> {
  const ids = rows.map((r) => r.id)
  const sites = ids.length > 0 ? await sitesOf(app, actor, ids) : []
  return rows.map(({ id, name, contact, phone, version }) => ({
    id,
    name,
    ...(seesContacts(actor) ? { contact, phone } : { contact: '', phone: '' }),
    version,
    sites: sites.filter((s) => s.customerId === id),
  }))
}

export async function createCustomer(
  app: App,
  actor: Person,
  input: { id: string; name: string; contact?: string | undefined; phone?: string | undefined },
): Promise<Customer> {
  const { contact = '', phone = '' } = input
  const row = { ...input, contact, phone, version: 1 }
  await madeOnce(app.db.customers, input.id, () =>
    audited(app, actor, 'added a customer', input.name, (transaction) =>
      app.db.customers.create(row, { transaction }),
    ),
  )
  return readCustomer(app, actor, input.id)
}

/** Visits that are planned or signed keep the name that they were planned with. */
export async function changeCustomer(
  app: App,
  actor: Person,
  id: string,
  version: number,
  input: { name?: string | undefined; contact?: string | undefined; phone?: string | undefined },
): Promise<Customer> {
  const before = await readCustomer(app, actor, id)
  const action = `changed ${changedFields(before, input)} of a customer`
  const subject = `${before.name}, ${changedValues(before, input)}`
  await audited(app, actor, action, subject, async (transaction) => {
    await changeVersioned(app.db.customers, 'customer', id, version, input, transaction)
    if (input.name) await followName(app, { customerId: id }, transaction)
  })
  return readCustomer(app, actor, id)
}
