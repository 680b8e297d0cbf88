import type { Equipment } from '@uvanta/contract'
import { sheetsOf } from '@uvanta/core/library'
import { type AnyQuantity, toSi } from '@uvanta/core/quantity'
import { addDays } from '@uvanta/core/calendar'
import type { DemoApp } from './app'
import { readEquipment } from '../service/register/equipment'
import { searchTextOf } from '../service/register/searchText'
import type { Seeded } from './random'
import type { Scenario } from './scenario'
import { nominalsOf } from './nominals'
import { saveVirtualSite, virtualSiteOf, type VirtualSite } from './virtualSite'

/** How often a family stands at a site; the test programme lives from backflow assemblies. */
const WEIGHTS: Readonly<Record<string, number>> = {
  'reduced-pressure-assembly': 16,
  'tower-double-check': 6,
  'double-check-detector': 5,
  'cartridge-check': 4,
  'vacuum-breaker': 5,
  'spring-regulator': 5,
  'sleeve-pilot-regulator': 3,
  'water-pressure-reducer': 4,
  'spring-cylinder-actuator': 2,
}
const PER_SITE = 4
const SIZES: Readonly<Record<string, readonly string[]>> = {
  RP: ['0.75', '1', '1.5', '2', '3', '4'],
  DC: ['1', '2', '3', '4', '6'],
  DCDA: ['4', '6', '8'],
  RPDA: ['4', '6'],
  PVB: ['0.5', '1', '2'],
  SVB: ['0.5', '1'],
}
const MAKERS = ['Maker A', 'Maker B', 'Maker C', 'Maker D', 'Maker E']

/** The spring regulator, counted, whose relief is too small for it. */
const OUTGROWN = 3

/** What the demo knows of a piece of equipment beyond the register. */
export interface DemoEquipment extends Equipment {
  /** Days from today to its due date. */
  readonly dueIn: number
  /** The modelled equipment behind it. */
  readonly virtualSite: VirtualSite
}

/** How to get in, where that has to be known. */
const ACCESS = [
  'Key at the porter’s lodge, left of the gate.',
  '',
  'Ring twice; the plant room is down the back stairs.',
  'Pit cover needs two: ask the caretaker.',
  '',
  'No water off between 11 and 14 o’clock.',
]

export async function loadEquipment(
  app: DemoApp,
  scenario: Scenario,
  random: Seeded,
): Promise<DemoEquipment[]> {
  const customers = new Map<string, string>()
  const counters = new Map<string, number>()
  const made: DemoEquipment[] = []
  // Every family once, then by weight.
  const queue = app.shelf.library.families.map((f) => f.id)
  const weighted = app.shelf.library.families.flatMap((f) =>
    Array<string>(WEIGHTS[f.id] ?? 1).fill(f.id),
  )

  for (const [siteIndex, [name, customer, address, district]] of scenario.sites.entries()) {
    const customerId = customers.get(customer) ?? random.uuid()
    if (!customers.has(customer)) {
      await app.db.customers.create({
        id: customerId,
        name: customer,
        contact: 'Caretaker',
        phone: `555 01${String(customers.size).padStart(2, '0')} ${30 + customers.size}`,
        version: 1,
      })
      customers.set(customer, customerId)
    }
    const access = ACCESS[siteIndex % ACCESS.length] ?? ''
    const site = { id: random.uuid(), customerId, name, address, district, access, version: 1 }
    await app.db.sites.create(site)
    for (let n = 0; n < PER_SITE; n++) {
      // The first at each of the first dozen sites is an RP: today's work is there.
      const familyId =
        n === 0 && siteIndex < 14
          ? 'reduced-pressure-assembly'
          : (queue.shift() ?? random.pick(weighted))
      made.push(
        await addEquipment(app, { ...site, customer }, familyId, scenario, random, counters),
      )
    }
  }
  const lines = lineUp(made)
  for (const { id, station, stationPlace } of lines) {
    await app.db.equipment.update({ station, stationPlace }, { where: { id } })
  }
  return made
}

/** What of one service stands at one site, in one line: what has the highest set point is next to the inlet. */
function lineUp(made: readonly DemoEquipment[]) {
  const bySite = new Map<string, DemoEquipment[]>()
  for (const e of made) {
    if (!LINES[e.service] || !e.setPoint) continue
    const key = `${e.site.id} ${e.service}`
    bySite.set(key, [...(bySite.get(key) ?? []), e])
  }
  return [...bySite.values()].flatMap((members) =>
    members.length < 2
      ? []
      : members
          .sort((a, b) => setKpa(b) - setKpa(a))
          .map((e, n) => ({ id: e.id, station: LINES[e.service] ?? null, stationPlace: n + 1 })),
  )
}
const LINES: Readonly<Record<string, string>> = {
  gas: 'Gas station',
  water: 'Pressure reducing station',
}
const setKpa = ({ setPoint }: Pick<Equipment, 'setPoint'>) =>
  setPoint ? toSi(setPoint as AnyQuantity) : 0

async function addEquipment(
  app: DemoApp,
  site: { id: string; name: string; address: string; district: string; customer: string },
  familyId: string,
  scenario: Scenario,
  random: Seeded,
  counters: Map<string, number>,
): Promise<DemoEquipment> {
  const family = app.shelf.library.families.find(
    (f) => f.id === familyId,
  ) as (typeof app.shelf.library.families)[number]
  const kind = random.pick(family.kinds)
  const prefix = /^[A-Z]+$/.test(kind)
    ? kind
    : family.id
        .split('-')
        .map((w) => w[0]?.toUpperCase())
        .join('')
  const count = (counters.get(prefix) ?? 100) + 1
  counters.set(prefix, count)
  const today = app.today()
  const dueIn = random.chance(0.1) ? -random.whole(1, 60) : random.whole(1, 364)
  const dueOn = addDays(today, dueIn)
  const id = random.uuid()
  const ofKind = (counters.get(`kind ${kind}`) ?? 0) + 1
  counters.set(`kind ${kind}`, ofKind)
  const nominals = nominalsOf(kind, random, kind === 'spring regulator' && ofKind === OUTGROWN)
  const row = {
    id,
    siteId: site.id,
    tag: `${prefix}-${count}`,
    family: family.id,
    kind,
    sizeIn: random.pick(SIZES[kind] ?? ['1', '2', '3']),
    serial: `${random.pick(['L', 'K', 'T', 'V'])}${random.whole(10_000, 99_999)}`,
    ...makeOf(app, family.id, random),
    service: family.service,
    position: random.pick(scenario.positions),
    setPoint: nominals.find((n) => n.name === 'set-point')?.value ?? null,
    nominals: nominals.filter((n) => n.name !== 'set-point'),
    station: null,
    stationPlace: null,
    programme: family.programme,
    installedOn: addDays(today, -random.whole(1_300, 9_000)),
    anchorOn: dueOn,
    virtualSite: null,
    version: 1,
  }
  await app.db.equipment.create({
    ...row,
    searchText: searchTextOf(row, site),
    siteName: site.name,
  })
  await app.db.equipmentStatus.create({
    equipmentId: id,
    condition: 'never-tested',
    dueOn,
    lastTestedOn: null,
    repairBy: null,
    lastVisitId: null,
  })
  const virtualSite = virtualSiteOf(kind, row.sizeIn, random, nominals)
  await saveVirtualSite(app, id, virtualSite)
  return { ...(await readEquipment(app, id)), dueIn, virtualSite }
}

/** A model with a spec sheet where there is one. */
function makeOf(app: DemoApp, family: string, random: Seeded) {
  const maker = random.pick(MAKERS)
  const [sheet] = sheetsOf(app.shelf.library, family)
  return sheet
    ? { maker: sheet.maker, model: sheet.model, specSheet: sheet.id }
    : { maker, model: '', specSheet: null }
}
