import type { Person } from '@uvanta/contract'
import type { Fault } from '@uvanta/core/apparatus'
import type { PayloadOf } from '@uvanta/core/visit'
import type { App } from '../context'
import { Op } from 'sequelize'
import { readPerson } from '../service/people/people'
import { planVisit } from '../service/visit/visits'
import { packFor } from './packs'
import { saveVirtualSite, type VirtualSite } from './virtualSite'

const OTHER_PACK = 'larkhaven-check-first'
const FOULED: Fault = { element: 'check-1', fault: 'fouled', severity: 0.4 }
const CUT: Fault = { element: 'bypass-check-1', fault: 'disc-cut', severity: 0.5 }
const DIRTY: Fault = { element: 'regulator', fault: 'fouled', severity: 0.4 }
const SEEPING: Fault = { element: 'regulator', fault: 'fouled', severity: 0.15 }
const SOILED: Fault = { element: 'main-seat', fault: 'fouled', severity: 0.4 }
const STIFF: Fault = { element: 'drive', fault: 'dry', severity: 0.5 }
const WANDERED: Fault = { element: 'drive', fault: 'zero-off', severity: 0.5 }
const STUCK: Fault = { element: 'air-inlet', fault: 'stuck', severity: 0.6 }

interface Planned {
  readonly who: 'odda' | 'teo'
  readonly kind: string
  readonly index: number
  readonly faults?: readonly Fault[]
  /** By another pack than the house’s own. */
  readonly pack?: string
  readonly purpose?: PayloadOf<'planned'>['purpose']
}

/** What is planned on a day of the demo, and what the equipment hides that day. */
const DAY: readonly Planned[] = [
  { who: 'odda', kind: 'RP', index: 0, faults: [FOULED] },
  { who: 'odda', kind: 'RP', index: 8 },
  { who: 'odda', kind: 'RP', index: 10 },
  { who: 'odda', kind: 'RP', index: 15, faults: [FOULED] },
  { who: 'odda', kind: 'RP', index: 13, faults: [FOULED] },
  { who: 'odda', kind: 'RP', index: 14 },
  { who: 'odda', kind: 'RP', index: 6 },
  { who: 'odda', kind: 'DC', index: 0 },
  { who: 'odda', kind: 'DC', index: 3, faults: [FOULED] },
  { who: 'odda', kind: 'DCDA', index: 0, faults: [CUT] },
  { who: 'odda', kind: 'DCDA', index: 1 },
  { who: 'odda', kind: 'PVB', index: 0 },
  { who: 'odda', kind: 'SVB', index: 0, faults: [STUCK] },
  { who: 'odda', kind: 'pilot regulator', index: 0, faults: [SEEPING], purpose: 'overhaul' },
  { who: 'odda', kind: 'actuator', index: 0, purpose: 'fail-action-change' },
  { who: 'odda', kind: 'actuator', index: 1, purpose: 'fail-action-change' },
  { who: 'odda', kind: 'spring regulator', index: 0, purpose: 'overhaul' },
  { who: 'odda', kind: 'spring regulator', index: 1 },
  { who: 'odda', kind: 'spring regulator', index: 2 },
  { who: 'odda', kind: 'pressure reducer', index: 0, faults: [DIRTY], purpose: 'complaint' },
  { who: 'odda', kind: 'sampler', index: 0 },
  { who: 'odda', kind: 'coupler', index: 0 },
  { who: 'odda', kind: 'control valve', index: 0, faults: [STIFF, WANDERED], purpose: 'overhaul' },
  { who: 'odda', kind: 'check valve', index: 0, faults: [SOILED] },
  { who: 'odda', kind: 'slam-shut regulator', index: 0 },
  { who: 'odda', kind: 'monitored regulator', index: 0 },
  { who: 'odda', kind: 'dome regulator', index: 0, purpose: 'overhaul' },
  { who: 'odda', kind: 'dome regulator', index: 1, purpose: 'overhaul' },
  { who: 'odda', kind: 'dome regulator', index: 2, purpose: 'overhaul' },
  { who: 'odda', kind: 'DCDA', index: 2, purpose: 'overhaul' },
  { who: 'odda', kind: 'RP', index: 16, purpose: 'complaint' },
  { who: 'odda', kind: 'sampler', index: 1 },
  { who: 'teo', kind: 'RP', index: 2 },
  { who: 'teo', kind: 'RP', index: 5 },
  { who: 'teo', kind: 'RP', index: 12, pack: OTHER_PACK },
  { who: 'teo', kind: 'RPDA', index: 0, pack: OTHER_PACK },
  { who: 'teo', kind: 'DC', index: 1, pack: OTHER_PACK },
]

/** When the first customers of a day expect us; the others leave the door open. */
const HOURS = ['07:30', '08:15', '09:15', '10:30', '13:00']

interface Visited {
  readonly id: string
  readonly kind: string
  readonly virtualSite: VirtualSite | null
}

/** Plans a day’s visits for the demo’s technicians, on that day or before it. */
export async function planDay(
  app: App,
  people: Readonly<Record<string, Person>>,
  equipment: readonly Visited[],
  plannedOn = app.today(),
): Promise<number> {
  let planned = 0
  const hours = new Map<string, number>()
  for (const { who, kind, index, faults = [], pack, purpose = 'periodic-test' } of DAY) {
    const list = equipment.filter((e) => e.kind === kind)
    const e = list[index % list.length]
    const technician = people[who]
    if (!e || !technician) continue
    if (e.virtualSite) await saveVirtualSite(app, e.id, { ...e.virtualSite, faults })
    const nth = hours.get(who) ?? 0
    hours.set(who, nth + 1)
    await planVisit(app, technician, {
      id: app.newId(),
      equipmentId: e.id,
      technicianId: technician.id,
      plannedOn,
      purpose,
      rulePack: pack ?? packFor(kind),
      ...(nth < HOURS.length ? { time: HOURS[nth] } : {}),
    })
    planned++
  }
  return planned
}

/** Plans today’s visits when an older demo is started again; does nothing elsewhere. */
export async function refreshDemoDay(app: App): Promise<number> {
  const found = await app.db.people.findAll({ where: { username: ['odda', 'teo'] } })
  const demo = await app.db.equipment.count({ where: { virtualSite: { [Op.ne]: null } } })
  if (found.length < 2 || demo === 0) return 0
  const rows = await app.db.equipment.findAll({ order: [['tag', 'ASC']] })
  const planned = await app.db.visits.count({
    where: {
      plannedOn: app.today(),
      technicianId: found.map((p) => p.id),
    },
  })
  // Two or three are planned days ahead; a full day has more.
  if (planned >= DAY.length / 2) return 0
  const people: Record<string, Person> = {}
  for (const p of found) people[p.username] = await readPerson(app, p.id)
  return planDay(
    app,
    people,
    rows.map((e) => ({ id: e.id, kind: e.kind, virtualSite: e.virtualSite as VirtualSite | null })),
  )
}
