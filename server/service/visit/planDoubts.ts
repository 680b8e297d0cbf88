import type { Id } from '@uvanta/core/schema'
import { validOn } from '@uvanta/core/calendar'
import { DateTime } from 'luxon'
import { Op } from 'sequelize'
import type { App } from '../../context'
import { listGauges } from '../instruments/gauges'
import { readPerson } from '../people/people'
import { readEquipment } from '../register/equipment'
import { listStock } from '../stock/stock'

/** 18 Nov 2026 */
const dayWords = (day: string) => DateTime.fromISO(day).toFormat('d LLL yyyy')

/** More visits than these on one day are asked about. */
const FULL_DAY = 8

interface Plan {
  readonly equipmentId: Id<'equipment'>
  readonly technicianId: Id<'person'>
  readonly plannedOn: string
  readonly rulePack?: string | undefined
  readonly visit?: string | undefined
}

/** What speaks against a plan, in sentences; it may be planned all the same. */
export async function planDoubts(app: App, plan: Plan): Promise<{ says: string }[]> {
  const equipment = await readEquipment(app, plan.equipmentId)
  const technician = await readPerson(app, plan.technicianId)
  const says = [
    ...dayDoubts(app, plan),
    ...licenceDoubts(app, plan, technician),
    ...(plan.rulePack ? await gaugeDoubts(app, plan) : []),
    ...(await kitDoubts(app, technician, equipment.specSheet)),
    ...(await otherVisits(app, plan, technician.name)),
  ]
  return says.map((words) => ({ says: words }))
}

const dayDoubts = (app: App, { plannedOn }: Plan): string[] =>
  plannedOn < app.today() ? [`${dayWords(plannedOn)} lies in the past.`] : []

type Technician = Awaited<ReturnType<typeof readPerson>>

function licenceDoubts(app: App, { plannedOn, rulePack }: Plan, t: Technician): string[] {
  const kind = app.shelf.library.rulePacks.find((p) => p.id === rulePack)?.licence
  if (!kind) return []
  const held = t.licences.filter((l) => l.kind === kind)
  if (held.some((l) => l.expiresOn >= plannedOn)) return []
  const [last] = held
  return last
    ? [
        `${t.name}’s licence ${last.number} expires on ${dayWords(last.expiresOn)}, before the visit.`,
      ]
    : [`${t.name} has no licence for this test.`]
}

async function gaugeDoubts(app: App, { plannedOn }: Plan): Promise<string[]> {
  const gauges = (await listGauges(app)).filter((g) => g.active)
  const fit = gauges.some((g) =>
    g.calibrations.some((c) => validOn(plannedOn, c.calibratedOn, c.validUntil)),
  )
  return fit ? [] : [`No gauge is in calibration on ${dayWords(plannedOn)}.`]
}

async function kitDoubts(app: App, t: Technician, sheet: string | null): Promise<string[]> {
  const kits = app.shelf.library.specSheets.find((s) => s.id === sheet)?.kits ?? []
  const usual = kits.filter((k) => k.job === undefined)
  if (usual.length === 0) return []
  const stock = await listStock(app)
  const onVan = (number: string) =>
    stock.find((i) => i.number === number)?.held.find((h) => h.holderId === t.id)?.quantity ?? 0
  if (usual.some((k) => onVan(k.number) > 0)) return []
  return [`There is no kit ${usual.map((k) => k.number).join(' or ')} on ${t.name}’s van.`]
}

async function otherVisits(app: App, plan: Plan, name: string): Promise<string[]> {
  const open = { [Op.in]: ['planned', 'under-way'] as const }
  const other = plan.visit ? { id: { [Op.ne]: plan.visit } } : {}
  const same = await app.db.visits.findOne({
    where: { ...other, equipmentId: plan.equipmentId, state: open as never },
    order: [['plannedOn', 'ASC']],
  })
  const of = { technicianId: plan.technicianId, plannedOn: plan.plannedOn, state: open as never }
  const count = await app.db.visits.count({ where: { ...other, ...of } })
  return [
    ...(same
      ? [
          `A visit to it is planned already for ${dayWords(same.plannedOn)}, ${(await readPerson(app, same.technicianId)).name}.`,
        ]
      : []),
    ...(count >= FULL_DAY ? [`${name} has ${count} visits on ${dayWords(plan.plannedOn)}.`] : []),
  ]
}
