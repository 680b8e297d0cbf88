import type { Id } from '@uvanta/core/schema'
import type { Person, StockItem } from '@uvanta/contract'
import { appended, type FoldedLog, stockChanges, type VisitEvent } from '@uvanta/core/visit'
import { col, fn, literal, Op } from 'sequelize'
import type { App } from '../../context'
import { audited } from '../audit'
import { ServiceError } from '../errors'
import { madeOnce } from '../madeOnce'
import { isKit, reservations } from './reserved'
import type { OpenLog } from '../visit/openLog'
import { namesOf } from '../people/names'
import { readPerson } from '../people/people'

/** Put up by the office, and not what a visit brought back. */
const BOOKED_IN = literal('(visit_id IS NULL AND `change` > 0)')

/** Whether the stock of a kit is kept, as soon as some came in, and how many of it somebody has. */
export async function stockOf(app: App, number: string, holderId: Id<'person'>) {
  const cameIn = await app.db.stockMoves.count({ where: { number, [Op.and]: BOOKED_IN } })
  const own = await app.db.stockMoves.sum('change', { where: { number, holderId } })
  return { kept: cameIn > 0, onVan: Number(own) || 0 }
}

/** The kits of the spec sheets, with how many each technician has. */
export async function listStock(app: App): Promise<StockItem[]> {
  const rows = (await app.db.stockMoves.findAll({
    attributes: [
      'number',
      'holderId',
      [fn('SUM', col('change')), 'quantity'],
      [fn('SUM', BOOKED_IN), 'bookings'],
    ],
    group: ['number', 'holderId'],
    raw: true,
  })) as unknown as {
    number: string
    holderId: Id<'person'>
    quantity: string | number
    bookings: string | number
  }[]
  const names = await namesOf(
    app,
    rows.map((r) => r.holderId),
  )
  const held = (number: string) =>
    rows
      .filter((r) => r.number === number)
      .map((r) => ({
        holderId: r.holderId,
        holder: names.get(r.holderId) ?? '',
        quantity: Number(r.quantity),
      }))
      .sort((a, b) => a.holder.localeCompare(b.holder))
  const isKept = (number: string) => rows.some((r) => r.number === number && Number(r.bookings) > 0)
  const kept = await reservations(app)
  const reserved = (number: string) =>
    kept
      .filter((r) => isKit(r.what, number))
      .map(({ visitId, holderId, tag, on }) => ({ visitId, holderId, tag, on }))
  const listed = app.shelf.library.specSheets.flatMap((sheet) =>
    sheet.kits.map((kit) => ({
      number: kit.number,
      title: kit.title,
      maker: sheet.maker,
      model: sheet.model,
      family: sheet.family,
      held: held(kit.number),
      kept: isKept(kit.number),
      reserved: reserved(kit.number),
    })),
  )
  // A kit that is on no sheet, as one from an earlier version, is still on somebody’s van.
  const known = new Set(listed.map((i) => i.number))
  const others = [...new Set(rows.map((r) => r.number))].filter((n) => !known.has(n))
  return [
    ...listed,
    ...others.map((number) => ({
      number,
      title: 'On no spec sheet',
      maker: '',
      model: '',
      family: '',
      held: held(number),
      kept: isKept(number),
      reserved: reserved(number),
    })),
  ].sort((a, b) => a.number.localeCompare(b.number))
}

/** Kits that came in, or were counted otherwise. Sending the same move twice does no harm. */
export async function moveStock(
  app: App,
  actor: Person,
  input: { id: string; number: string; holderId: Id<'person'>; change: number; reason: string },
): Promise<StockItem[]> {
  await madeOnce(app.db.stockMoves, input.id, async () => {
    const holder = await readPerson(app, input.holderId)
    if (!holder.roles.includes('technician'))
      throw new ServiceError('invalid', `${holder.name} is no technician.`, 'Choose one.', {
        code: 'not-a-technician',
      })
    const row = { ...input, visitId: null, at: app.now().toJSDate(), person: actor.name }
    const action = `stock ${input.change > 0 ? '+' : ''}${input.change}`
    return audited(app, actor, action, `${input.number}, ${holder.name}`, (transaction) =>
      app.db.stockMoves.create(row, { transaction }),
    )
  })
  return listStock(app)
}

/** Keeps the stock in step with a visit’s log, in the transaction that appends to it. */
export async function followStock(
  app: App,
  { visit, transaction, ...before }: OpenLog,
  added: readonly VisitEvent[],
): Promise<void> {
  let log: FoldedLog = before
  for (const event of added) {
    const changes = stockChanges(log.state, event)
    log = appended(log, [event])
    for (const { number, change, reason } of changes) {
      await app.db.stockMoves.create(
        {
          id: app.newId(),
          at: app.now().toJSDate(),
          number,
          change,
          reason,
          holderId: visit.technicianId,
          visitId: visit.id,
          person: event.personName,
        },
        { transaction },
      )
    }
  }
}
