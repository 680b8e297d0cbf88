import type { Person, Site } from '@uvanta/contract'
import { IndexHints, Op, type WhereOptions } from 'sequelize'
import type { App } from '../../context'
import type { SiteRow } from '../../store/tables'
import { audited } from '../audit'
import { ServiceError } from '../errors'
import { escapeLike } from './escapeLike'

export async function readSite(app: App, id: string): Promise<Site> {
  const [site] = await siteQuery(app, { id })
  if (!site)
    throw new ServiceError(
      'invalid',
      'There is no such site.',
      'Choose one from the list or add it first.',
    )
  return site
}

export async function listSites(
  app: App,
  q: string | undefined,
  customer: string | undefined,
): Promise<Site[]> {
  return siteQuery(app, {
    ...(customer ? { customerId: customer } : {}),
    ...(q ? { name: { [Op.like]: `%${escapeLike(q)}%` } } : {}),
  })
}

async function siteQuery(app: App, where: WhereOptions<SiteRow>): Promise<Site[]> {
  const rows = await app.db.sites.findAll({
    where,
    include: 'customer',
    order: [['name', 'ASC']],
    // Read off the names, not sorted; those of one customer are few.
    ...('customerId' in where || 'id' in where
      ? {}
      : { indexHints: [{ type: IndexHints.FORCE, values: ['name'] }] }),
    limit: 500,
  })
  return rows.map((r) => ({
    id: r.id,
    customerId: r.customerId,
    customer: r.customer?.name ?? '',
    name: r.name,
    address: r.address,
    district: r.district,
    access: r.access,
    version: r.version,
  }))
}

export async function createSite(
  app: App,
  actor: Person,
  input: Omit<Site, 'customer' | 'version' | 'access'> & { access?: string | undefined },
): Promise<Site> {
  if (!(await app.db.customers.findByPk(input.customerId))) {
    throw new ServiceError('invalid', 'There is no such customer.', 'Add the customer first.')
  }
  if (!(await app.db.sites.findByPk(input.id))) {
    const row = { ...input, access: input.access ?? '', version: 1 }
    await audited(app, actor, 'added a site', input.name, (transaction) =>
      app.db.sites.create(row, { transaction }),
    )
  }
  return readSite(app, input.id)
}
