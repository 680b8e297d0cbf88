import type { Customer, Person } from '@uvanta/contract'
import { Op } from 'sequelize'
import type { App } from '../../context'
import type { CustomerRow } from '../../store/tables'
import { audited } from '../audit'
import { escapeLike } from './escapeLike'

export async function listCustomers(app: App, q: string | undefined): Promise<Customer[]> {
  const rows = await app.db.customers.findAll({
    where: q ? { name: { [Op.like]: `%${escapeLike(q)}%` } } : {},
    order: [['name', 'ASC']],
    limit: 500,
  })
  return rows.map(toCustomer)
}

const toCustomer = ({ id, name, contact, phone, version }: CustomerRow): Customer => ({
  id,
  name,
  contact,
  phone,
  version,
})

export async function createCustomer(
  app: App,
  actor: Person,
  input: { id: string; name: string; contact?: string | undefined; phone?: string | undefined },
): Promise<Customer> {
  const known = await app.db.customers.findByPk(input.id)
  if (known) return toCustomer(known)
  return audited(app, actor, 'added a customer', input.name, async (transaction) => {
    const { contact = '', phone = '' } = input
    const row = { ...input, contact, phone, version: 1 }
    return toCustomer(await app.db.customers.create(row, { transaction }))
  })
}
