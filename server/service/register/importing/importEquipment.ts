import type { ImportedLine, ImportRequest, Person } from '@uvanta/contract'
import type { Transaction } from 'sequelize'
import { v7 as uuidv7 } from 'uuid'
import type { App } from '../../../context'
import { triedAgain } from '../../../store/triedAgain'
import { recordAudit } from '../../audit'
import { inSealingOrder } from '../../integrity/seals'
import { newEquipment } from '../newEquipment'
import { decide, type Decision, type Known, type Step } from './decide'
import { type Asked, readLine } from './readLine'

/** A line that is understood, under the id that it may be given. */
interface Understood {
  readonly id: string
  readonly asked: Asked
}
interface Planned extends Understood {
  readonly step: Step
}

/**
 * Looks at lines of a table, or brings them in, those that can be: in one transaction, with a line of the audit each.
 * A line sent again, or brought in by somebody else meanwhile, is found to be there.
 */
export async function importEquipment(
  app: App,
  actor: Person,
  { lines, dates, keep }: ImportRequest,
): Promise<ImportedLine[]> {
  const read = lines.map(({ line, id, cells }) => ({
    line,
    id,
    ...readLine({ cells }, app.shelf.library, dates),
  }))
  const understood = read.filter((r) => 'asked' in r)
  const decided = await (keep && understood.length > 0
    ? triedAgain(() =>
        app.db.sequelize.transaction(async (transaction) => {
          // Whoever else brings in the same customer or tag does so before or after: both write to the audit.
          await inSealingOrder(app, 'audit', transaction)
          const all = decideAll(understood, await readKnown(app, understood, transaction))
          await write(app, actor, plannedOf(all), transaction)
          return all
        }),
      )
    : readKnown(app, understood).then((known) => decideAll(understood, known)))
  return read.map((r): ImportedLine => {
    const decision = 'asked' in r ? decided.get(r) : undefined
    if (decision && decision.outcome !== 'refused')
      return { line: r.line, outcome: decision.outcome, faults: [] }
    const faults = decision?.faults ?? ('faults' in r ? r.faults : [])
    return { line: r.line, outcome: 'refused', faults: [...faults] }
  })
}

/** What becomes of each, one after the other: a line finds what those before it brought. */
function decideAll(
  understood: readonly Understood[],
  known: Known,
): ReadonlyMap<Understood, Decision> {
  let held = known
  return new Map(
    understood.map((one) => {
      const decision = decide(one.asked, held, uuidv7)
      if (decision.outcome === 'new') held = decision.known
      return [one, decision]
    }),
  )
}

const plannedOf = (decided: ReadonlyMap<Understood, Decision>): Planned[] =>
  [...decided].flatMap(([one, decision]) =>
    decision.outcome === 'new' ? [{ ...one, step: decision.step }] : [],
  )

/** What the register holds under the names and tags of these lines. */
async function readKnown(
  app: App,
  understood: readonly Understood[],
  transaction?: Transaction,
): Promise<Known> {
  const within = { raw: true, ...(transaction ? { transaction } : {}) }
  const asked = understood.map((u) => u.asked)
  const customers = await app.db.customers.findAll({
    attributes: ['id', 'name'],
    where: { name: asked.map((a) => a.place.customer) },
    ...within,
  })
  const sites = await app.db.sites.findAll({
    attributes: ['id', 'customerId', 'name', 'address', 'district'],
    where: { customerId: customers.map((c) => c.id), name: asked.map((a) => a.place.site) },
    ...within,
  })
  const equipment = await app.db.equipment.findAll({
    attributes: ['tag', 'serial', 'siteId'],
    where: { tag: asked.map((a) => a.equipment.tag) },
    ...within,
  })
  return { customers, sites, equipment }
}

async function write(
  app: App,
  actor: Person,
  planned: readonly Planned[],
  transaction: Transaction,
): Promise<void> {
  const customers = planned.filter((p) => p.step.customer.isNew)
  const sites = planned.filter((p) => p.step.site.isNew)
  const made = planned.map(({ id, asked, step }) => {
    const { nominals, ...fields } = asked.equipment
    const setPoint = nominals.find((n) => n.name === 'set-point')?.value ?? null
    const others = nominals.filter((n) => n.name !== 'set-point')
    return newEquipment(
      { ...fields, id, siteId: step.site.id, setPoint, nominals: others },
      { ...step.site, customer: step.customer.name },
    )
  })
  await app.db.customers.bulkCreate(
    customers.map(
      ({
        step,
        asked: {
          place: { contact = '', phone = '' },
        },
      }) => ({
        id: step.customer.id,
        name: step.customer.name,
        contact,
        phone,
        version: 1,
      }),
    ),
    { transaction },
  )
  await app.db.sites.bulkCreate(
    sites.map(
      ({
        step: { site },
        asked: {
          place: { access = '' },
        },
      }) => {
        const { isNew: _isNew, ...place } = site
        return { ...place, access, version: 1 }
      },
    ),
    { transaction },
  )
  await app.db.equipment.bulkCreate(
    made.map((m) => m.row),
    { transaction },
  )
  await app.db.equipmentStatus.bulkCreate(
    made.map((m) => m.status),
    { transaction },
  )
  const lines = [
    ...customers.map((c) => ['added a customer', c.step.customer.name] as const),
    ...sites.map((s) => ['added a site', s.step.site.name] as const),
    ...made.map((m) => ['added equipment', m.row.tag] as const),
  ]
  for (const [action, subject] of lines)
    await recordAudit(app, actor, `${action} from a table`, subject, transaction)
}
