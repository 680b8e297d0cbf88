import type { Id } from '@uvanta/core/schema'
import { nominalsOf, type Person, type Visit, type VisitRow } from '@uvanta/contract'
import { NotInLibrary, pinsInForce, testPlanOf } from '@uvanta/core/library'
import { CHAIN_START, type PayloadOf } from '@uvanta/core/visit'
import { Op, type Transaction } from 'sequelize'
import type { App } from '../../context'
import type { VisitTableRow } from '../../store/tables'
import { appendRows } from './chain'
import { lastTightened } from './lastTightened'
import { previousLeft } from './previous'
import { readEvents } from './log'
import { forbidden, notFound, ServiceError } from '../errors'
import { madeOnce } from '../madeOnce'
import { keptCursor, makeCursor, pageSize } from '../paging'
import { namesOf } from '../people/names'
import { readPerson } from '../people/people'
import { seesProofs, withoutProofs } from '../people/proofs'
import { seesContacts } from '../register/contacts'
import { readEquipment } from '../register/equipment'
import { sealNew, visitWords } from '../integrity/seals'

export interface VisitQuery {
  readonly on?: string | undefined
  /** Planned on this date or later. */
  readonly from?: string | undefined
  /** Planned before this date. */
  readonly before?: string | undefined
  readonly state?: string | undefined
  readonly technician?: string | undefined
  readonly scope?: 'mine' | 'all' | undefined
  readonly cursor?: string | undefined
  readonly limit?: string | undefined
}

/** Technicians and trainees see their own visits; the office sees all. */
const seesAll = (person: Person) =>
  person.roles.some((r) => r === 'planner' || r === 'reviewer' || r === 'administrator')

export async function listVisits(app: App, person: Person, query: VisitQuery) {
  const limit = pageSize(query.limit)
  const [on, id] = keptCursor(query.cursor, 2, /^\d{4}-\d{2}-\d{2}$/)
  const mine = query.scope === 'mine' || !seesAll(person)
  const rows = await app.db.visits.findAll({
    where: {
      ...(query.on || query.from || query.before
        ? {
            plannedOn: {
              ...(query.on ? { [Op.eq]: query.on } : {}),
              ...(query.from ? { [Op.gte]: query.from } : {}),
              ...(query.before ? { [Op.lt]: query.before } : {}),
            },
          }
        : {}),
      ...(query.state ? { state: query.state } : {}),
      ...(query.technician ? { technicianId: query.technician } : {}),
      ...(mine ? { technicianId: person.id } : {}),
      // As a range besides, so that a later page is read off the index like the first.
      ...(on && id
        ? {
            [Op.and]: [
              { plannedOn: { [Op.lte]: on } },
              { [Op.or]: [{ plannedOn: { [Op.lt]: on } }, { id: { [Op.lt]: id } }] },
            ],
          }
        : {}),
    },
    order: [
      ['plannedOn', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: limit + 1,
  })
  const shown = rows.slice(0, limit)
  const around = await aroundOf(app, person, shown)
  const last = shown.at(-1)
  return {
    items: shown.map((row) => toVisitRow(row, around)),
    next: rows.length > limit && last ? makeCursor([last.plannedOn, last.id]) : null,
  }
}

/** What stands around visits and not in them: who goes, whom to call, how to get in. */
interface Around {
  readonly names: ReadonlyMap<string, string>
  readonly arrivals: ReadonlyMap<string, VisitRow['arrival']>
}

const NOBODY: VisitRow['arrival'] = { contact: '', phone: '', access: '' }

async function aroundOf(app: App, actor: Person, rows: readonly VisitTableRow[]): Promise<Around> {
  const unique = (ids: readonly string[]) => [...new Set(ids)]
  const [names, equipment] = await Promise.all([
    namesOf(
      app,
      rows.map((r) => r.technicianId),
    ),
    app.db.equipment.findAll({
      attributes: ['id', 'siteId'],
      where: { id: unique(rows.map((r) => r.equipmentId)) },
    }),
  ])
  const siteIds = seesContacts(actor) ? unique(equipment.map((e) => e.siteId)) : []
  const sites = await app.db.sites.findAll({
    where: { id: siteIds },
    include: 'customer',
  })
  const arrivalAt = new Map(
    sites.map((s) => [
      s.id,
      { contact: s.customer?.contact ?? '', phone: s.customer?.phone ?? '', access: s.access },
    ]),
  )
  return {
    names,
    arrivals: new Map(equipment.map((e) => [e.id, arrivalAt.get(e.siteId) ?? NOBODY])),
  }
}

function toVisitRow(row: VisitTableRow, { names, arrivals }: Around): VisitRow {
  const technician = names.get(row.technicianId) ?? ''
  return {
    id: row.id,
    plannedOn: row.plannedOn,
    purpose: row.purpose as VisitRow['purpose'],
    technicianId: row.technicianId,
    technician,
    state: row.state,
    done: row.done,
    skipped: row.skipped,
    outcome: row.outcome,
    certificateId: row.certificateId,
    certificateNumber: row.certificateNumber,
    equipment: row.equipment as VisitRow['equipment'],
    count: row.eventCount,
    time: row.time,
    replannedAt: row.replannedAt?.toISOString() ?? null,
    replanAsked: row.replanAsked,
    arrival: arrivals.get(row.equipmentId) ?? NOBODY,
  }
}

/** A visit with its log. Whoever is signed in reads what colleagues found; only its technician writes. */
export async function readVisit(app: App, actor: Person, id: string): Promise<Visit> {
  const row = await app.db.visits.findByPk(id)
  if (!row) throw notFound('visit')
  const events = await readEvents(app, id)
  return {
    ...toVisitRow(row, await aroundOf(app, actor, [row])),
    events: (seesProofs(actor) ? events : events.map(withoutProofs)) as Visit['events'],
  }
}

export async function planVisit(
  app: App,
  actor: Person,
  input: {
    id: string
    equipmentId: Id<'equipment'>
    technicianId: Id<'person'>
    plannedOn: string
    purpose: PayloadOf<'planned'>['purpose']
    rulePack?: string | undefined
    time?: string | undefined
  },
): Promise<Visit> {
  await madeOnce(app.db.visits, input.id, () => addVisit(app, actor, input))
  return readVisit(app, actor, input.id)
}

async function addVisit(
  app: App,
  actor: Person,
  input: Parameters<typeof planVisit>[2],
): Promise<void> {
  const office = actor.roles.some((r) => r === 'planner' || r === 'administrator')
  if (!office && input.technicianId !== actor.id) {
    throw forbidden('A technician plans visits for himself only.', 'Ask the planner.')
  }
  await activeTechnician(app, input.technicianId)
  const payload = await planPayload(app, input)
  await app.db.sequelize.transaction(async (transaction) => {
    await holdInService(app, payload.equipment, transaction)
    await insertPlanned(app, actor, input.id, input.technicianId, payload, transaction)
  })
}

/**
 * Until the transaction ends nobody takes the equipment out of service.
 * @throws ServiceError refused where it is out already
 */
async function holdInService(
  app: App,
  { id, tag }: PayloadOf<'planned'>['equipment'],
  transaction: Transaction,
): Promise<void> {
  await app.db.equipment.findByPk(id, { attributes: ['id'], lock: true, transaction })
  const status = await app.db.equipmentStatus.findByPk(id, { lock: true, transaction })
  if (status?.condition !== 'out-of-service') return
  throw new ServiceError(
    'refused',
    `${tag} is out of service.`,
    'Put it back into service first, on its page.',
    { code: 'out-of-service' },
  )
}

/** @throws ServiceError invalid when visits cannot be given to that person */
export async function activeTechnician(app: App, id: string): Promise<Person> {
  const technician = await readPerson(app, id)
  if (technician.roles.includes('technician') && technician.active) return technician
  throw new ServiceError(
    'invalid',
    `${technician.name} is not an active technician.`,
    'Choose one from the list.',
    { code: 'technician-not-active' },
  )
}

async function planPayload(
  app: App,
  input: {
    equipmentId: Id<'equipment'>
    plannedOn: string
    purpose: PayloadOf<'planned'>['purpose']
    rulePack?: string | undefined
    time?: string | undefined
  },
): Promise<PayloadOf<'planned'>> {
  const e = await readEquipment(app, input.equipmentId)
  const pack = packFor(app, e.kind, input.rulePack)
  const nominals = nominalsOf(e)
  const previous = await previousLeft(app, e.id, input.plannedOn)
  const tightened = await lastTightened(app, e.id, input.plannedOn)
  const pins = pinsInForce(app.shelf.library, { ...e, packId: pack?.id })
  return {
    purpose: input.purpose,
    plannedOn: input.plannedOn,
    ...(input.time ? { time: input.time } : {}),
    ...(pack ? { packId: pack.id, packVersion: pack.version } : {}),
    pins,
    equipment: {
      id: e.id,
      tag: e.tag,
      family: e.family,
      kind: e.kind,
      sizeIn: e.sizeIn,
      serial: e.serial,
      maker: e.maker,
      service: e.service,
      position: e.position,
      ...(e.specSheet ? { specSheet: e.specSheet } : {}),
      site: e.site.name,
      address: e.site.address,
      customer: e.site.customer,
      ...(nominals.length > 0 ? { nominals } : {}),
    },
    ...(previous ? { previous } : {}),
    ...(tightened ? { tightened } : {}),
    zone: { name: app.utility.current.timeZone, within: app.utility.current.zoneWithin },
  }
}

/** The rule pack of a visit; a kind that no pack tests is serviced and checked without one. */
function packFor(app: App, kind: string, chosen: string | undefined) {
  const tested = app.shelf.library.rulePacks.some((p) => p.tests.some((t) => t.kind === kind))
  if (!tested && !chosen) return null
  if (!chosen)
    throw new ServiceError('invalid', 'This kind has a field test.', 'Choose its rule pack.')
  try {
    return testPlanOf(app.shelf.library, chosen, kind).pack
  } catch (error) {
    if (error instanceof NotInLibrary)
      throw new ServiceError('invalid', error.why, error.remedy, { code: error.code })
    throw error
  }
}

/** The first event of a visit, and its row in the visit list. */
export async function insertPlanned(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  visitId: Id<'visit'>,
  technicianId: Id<'person'>,
  payload: PayloadOf<'planned'>,
  transaction: Transaction,
): Promise<void> {
  await app.db.visits.create(
    {
      id: visitId,
      equipmentId: payload.equipment.id,
      technicianId,
      plannedOn: payload.plannedOn,
      purpose: payload.purpose,
      state: 'planned',
      done: [],
      skipped: [],
      outcome: null,
      certificateId: null,
      certificateNumber: null,
      equipment: payload.equipment,
      eventCount: 0,
      headHash: CHAIN_START,
      time: payload.time ?? null,
      replannedAt: app.now().toJSDate(),
      replanAsked: null,
    },
    { transaction },
  )
  const now = app.now().toISO()
  const draft = {
    id: app.newId(),
    kind: 'planned' as const,
    payload,
    deviceTime: now,
    deviceOffset: 0,
  }
  const rows = await appendRows(
    app,
    actor,
    visitId,
    { count: 0, headHash: CHAIN_START },
    [draft],
    transaction,
  )
  const head = { eventCount: rows.length, headHash: rows.at(-1)?.hash ?? CHAIN_START }
  await app.db.visits.update(head, { where: { id: visitId }, transaction })
  await sealNew(app, 'visit', visitId, visitWords({ id: visitId, ...head }), transaction)
}
