import type { Equipment, Person } from '@uvanta/contract'
import { familyOf, type Library, NotInLibrary, programmeOf } from '@uvanta/core/library'
import { addDays } from '@uvanta/core/calendar'
import { lawfulUntil } from '@uvanta/core/programme'
import { Op, QueryTypes } from 'sequelize'
import type { App } from '../../context'
import { audited } from '../audit'
import { notFound, ServiceError } from '../errors'
import { madeOnce } from '../madeOnce'
import { changedFields, changedValues } from './changedFields'
import { equipmentColumns, type EquipmentQuery, equipmentSql, type FlatEquipment } from './search'
import { makeCursor, pageSize } from '../paging'
import { type EquipmentInput, newEquipment } from './newEquipment'
import { searchTextOf } from './searchText'
import { readSite } from './sites'
import { changeVersioned } from './versioned'

/** Notices start this many days before a due date, for the “soon” filter. */
const SOON_DAYS = 60

export async function searchEquipment(app: App, query: EquipmentQuery) {
  const limit = pageSize(query.limit)
  const today = app.today()
  const { sql, replacements, cursorOf } = equipmentSql(
    query,
    today,
    addDays(today, SOON_DAYS),
    limit + 1,
  )
  const rows = await app.db.sequelize.query<FlatEquipment>(sql, {
    replacements,
    type: QueryTypes.SELECT,
  })
  const items = rows.slice(0, limit)
  const last = items.at(-1)
  return {
    items: items.map((row) => toEquipment(app.shelf.library, row)),
    next: rows.length > limit && last ? makeCursor(cursorOf(last)) : null,
  }
}

export async function readEquipment(app: App, id: string): Promise<Equipment> {
  const [row] = await app.db.sequelize.query<FlatEquipment>(
    `${equipmentColumns} WHERE e.id = :id`,
    {
      replacements: { id },
      type: QueryTypes.SELECT,
    },
  )
  if (!row) throw notFound('equipment')
  return toEquipment(app.shelf.library, row)
}

/** What stands in one line with a piece of equipment, itself included, from the inlet on. */
export async function readStation(app: App, id: string): Promise<Equipment[]> {
  const { site, station } = await readEquipment(app, id)
  if (!station) return []
  const rows = await app.db.sequelize.query<FlatEquipment>(
    `${equipmentColumns} WHERE e.site_id = :site AND e.station = :station
    ORDER BY e.station_place, e.tag LIMIT 50`,
    { replacements: { site: site.id, station }, type: QueryTypes.SELECT },
  )
  return rows.map((row) => toEquipment(app.shelf.library, row))
}

function toEquipment(library: Library, row: FlatEquipment): Equipment {
  const {
    siteId,
    customerId,
    customer,
    siteName,
    address,
    district,
    siteVersion,
    setPoint,
    nominals,
    ...rest
  } = row
  return {
    ...rest,
    lawfulUntil: lawfulUntilOf(library, row),
    setPoint: parsed(setPoint),
    nominals: parsed(nominals) ?? [],
    site: {
      id: siteId,
      customerId,
      customer,
      name: siteName,
      address,
      district,
      version: siteVersion,
    },
  }
}

/** A JSON column, which some queries hand on as text. */
const parsed = <T>(value: string | T): T =>
  typeof value === 'string' ? (JSON.parse(value) as T) : value

/** Known only where the last test left the equipment in order. */
function lawfulUntilOf(library: Library, row: FlatEquipment): string | null {
  const tested = row.condition === 'in-order' || row.condition === 'temporary-repair'
  const programme = library.programmes.find((p) => p.id === row.programme)
  return tested && row.lastTestedOn && programme ? lawfulUntil(programme, row.lastTestedOn) : null
}

export async function createEquipment(
  app: App,
  actor: Person,
  input: EquipmentInput,
): Promise<Equipment> {
  await madeOnce(app.db.equipment, input.id, () => addEquipment(app, actor, input))
  return readEquipment(app, input.id)
}

async function addEquipment(app: App, actor: Person, input: EquipmentInput): Promise<void> {
  checkCatalogue(app, input)
  const site = await readSite(app, actor, input.siteId)
  if (await app.db.equipment.findOne({ where: { tag: input.tag } })) {
    throw new ServiceError('conflict', `The tag ${input.tag} is taken.`, 'Choose another.', {
      code: 'tag-taken',
    })
  }
  const { row, status } = newEquipment(input, site)
  await audited(app, actor, 'added equipment', input.tag, async (transaction) => {
    await app.db.equipment.create(row, { transaction })
    await app.db.equipmentStatus.create(status, { transaction })
  })
}

export async function changeEquipment(
  app: App,
  actor: Person,
  id: string,
  version: number,
  input: { [K in keyof EquipmentInput]?: EquipmentInput[K] | undefined },
): Promise<Equipment> {
  const current = await readEquipment(app, id)
  const { dueOn, ...fields } = input
  const merged = { ...current, siteId: current.site.id, ...defined(fields) }
  checkCatalogue(app, merged)
  if (dueOn && current.condition === 'out-of-service') {
    throw new ServiceError(
      'refused',
      `${current.tag} is out of service and falls due with nothing.`,
      'Put it back into service first, or leave the date out.',
      { code: 'out-of-service' },
    )
  }
  const site = await readSite(app, actor, merged.siteId)
  const taken = await app.db.equipment.findOne({ where: { tag: merged.tag, id: { [Op.ne]: id } } })
  if (taken)
    throw new ServiceError('conflict', `The tag ${merged.tag} is taken.`, 'Choose another.', {
      code: 'tag-taken',
    })
  const before = { ...current, siteId: current.site.id }
  const action = `changed ${changedFields(before, input)} of equipment`
  const subject = `${merged.tag}, ${changedValues(before, input)}`
  await audited(app, actor, action, subject, async (transaction) => {
    const changed = {
      ...fields,
      ...(dueOn ? { anchorOn: dueOn } : {}),
      searchText: searchTextOf(merged, site),
      siteName: site.name,
    }
    await changeVersioned(app.db.equipment, 'equipment', id, version, changed, transaction)
    if (!dueOn) return
    await app.db.equipmentStatus.update({ dueOn }, { where: { equipmentId: id }, transaction })
  })
  return readEquipment(app, id)
}

type Defined<T> = { [K in keyof T]?: Exclude<T[K], undefined> }

const defined = <T extends object>(fields: T) =>
  Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined)) as Defined<T>

function checkCatalogue(
  app: App,
  input: { family: string; kind: string; programme: string },
): void {
  try {
    const family = familyOf(app.shelf.library, input.family)
    programmeOf(app.shelf.library, input.programme)
    if (!family.kinds.includes(input.kind)) {
      throw new ServiceError(
        'invalid',
        `${family.title} has no kind “${input.kind}”.`,
        `Choose one of ${family.kinds.join(', ')}.`,
        { code: 'kind-unknown' },
      )
    }
  } catch (error) {
    if (error instanceof NotInLibrary)
      throw new ServiceError('invalid', error.why, error.remedy, { code: error.code })
    throw error
  }
}
