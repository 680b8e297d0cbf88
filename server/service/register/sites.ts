import type { Person, Site } from '@uvanta/contract'
import { IndexHints, Op, type WhereOptions } from 'sequelize'
import type { App } from '../../context'
import type { SiteRow } from '../../store/tables'
import { audited } from '../audit'
import { ServiceError } from '../errors'
import { madeOnce } from '../madeOnce'
import { changedFields, changedValues } from './changedFields'
import { seesContacts } from './contacts'
import { escapeLike } from './escapeLike'
import { followName } from './followName'
import { changeVersioned } from './versioned'

export async function readSite(app: App, actor: Person, id: string): Promise<Site> {
  const [site] = await siteQuery(app, actor, { id })
  if (!site)
    throw new ServiceError(
      'invalid',
      'There is no such site.',
      'Choose one from the list or add it first.',
      { code: 'site-unknown' },
    )
  return site
}

/** Sites of some customers, by name. */
export const sitesOf = (app: App, actor: Person, customerIds: readonly string[]): Promise<Site[]> =>
  siteQuery(app, actor, { customerId: [...customerIds] })

export async function listSites(
  app: App,
  actor: Person,
  q: string | undefined,
  customer: string | undefined,
): Promise<Site[]> {
  return siteQuery(app, actor, {
    ...(customer ? { customerId: customer } : {}),
    ...(q ? { [Op.or]: [{ name: like(q) }, { address: like(q) }] } : {}),
  })
}

const like = (q: string) => ({ [Op.like]: `%${escapeLike(q)}%` })

async function siteQuery(app: App, actor: Person, where: WhereOptions<SiteRow>): Promise<Site[]> {
  const isFew = 'customerId' in where || 'id' in where
  const rows = await app.db.sites.findAll({
    where,
    include: 'customer',
    // Read off the names and not sorted by the database; those of some customers are few, and are sorted here.
    ...(isFew
      ? {}
      : {
          order: [['name', 'ASC']],
          indexHints: [{ type: IndexHints.FORCE, values: ['name'] }],
          limit: 500,
        }),
  })
  const sorted = isFew ? rows.toSorted((a, b) => a.name.localeCompare(b.name)) : rows
  return sorted.map((r) => ({
    id: r.id,
    customerId: r.customerId,
    customer: r.customer?.name ?? '',
    name: r.name,
    address: r.address,
    district: r.district,
    access: seesContacts(actor) ? r.access : '',
    version: r.version,
  }))
}

export async function createSite(
  app: App,
  actor: Person,
  input: Omit<Site, 'customer' | 'version' | 'access'> & { access?: string | undefined },
): Promise<Site> {
  if (!(await app.db.customers.findByPk(input.customerId))) {
    throw new ServiceError('invalid', 'There is no such customer.', 'Add the customer first.', {
      code: 'customer-unknown',
    })
  }
  const row = { ...input, access: input.access ?? '', version: 1 }
  await madeOnce(app.db.sites, input.id, () =>
    audited(app, actor, 'added a site', input.name, (transaction) =>
      app.db.sites.create(row, { transaction }),
    ),
  )
  return readSite(app, actor, input.id)
}

/** Visits that are planned or signed keep the name and address that they were planned with. */
export async function changeSite(
  app: App,
  actor: Person,
  id: string,
  version: number,
  input: { [K in 'name' | 'address' | 'district' | 'access']?: string | undefined },
): Promise<Site> {
  const before = await readSite(app, actor, id)
  const action = `changed ${changedFields(before, input)} of a site`
  const subject = `${before.name}, ${changedValues(before, input)}`
  await audited(app, actor, action, subject, async (transaction) => {
    await changeVersioned(app.db.sites, 'site', id, version, input, transaction)
    await followName(app, { id }, transaction)
  })
  return readSite(app, actor, id)
}
