import type { Transaction } from 'sequelize'
import type { App } from '../../context'
import { searchTextOf } from './searchText'

/** Equipment is found and sorted by the names of its site and customer: it follows when these change. */
export async function followName(
  app: App,
  which: { id: string } | { customerId: string },
  transaction: Transaction,
): Promise<void> {
  const sites = await app.db.sites.findAll({ where: which, include: 'customer', transaction })
  for (const site of sites) {
    const named = { ...site.get({ plain: true }), customer: site.customer?.name ?? '' }
    const there = await app.db.equipment.findAll({ where: { siteId: site.id }, transaction })
    for (const e of there)
      await app.db.equipment.update(
        { searchText: searchTextOf(e, named), siteName: site.name },
        { where: { id: e.id }, transaction },
      )
  }
}
