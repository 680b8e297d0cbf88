import { demoApp, type DemoApp } from './app'
import type { Person } from '@uvanta/contract'
import { addDays } from '@uvanta/core/calendar'
import type { App } from '../context'
import * as gauges from '../service/instruments/gauges'
import { createPerson, addLicence, readPerson } from '../service/people/people'
import { loadEarlierGuides } from './earlier'
import { loadEquipment } from './equipment'
import { loadHistory } from './history'
import { Seeded } from './random'
import { DEMO_PASSWORD, readScenario, type Scenario } from './scenario'
import { loadStock } from './stock'
import { loadTodaysVisits } from './today'

/** Fills an empty database with Larkhaven. Does nothing when there are people already. */
export async function loadDemo(app: App, say: (line: string) => void): Promise<boolean> {
  if ((await app.db.people.count()) > 0) return false
  const scenario = readScenario(app.config.libraryDirectory)
  const random = new Seeded(scenario.seed)
  const demo = demoApp(app, random)
  const people = await loadPeople(demo, scenario, random)
  const petra = people.petra as Person
  await loadGauges(demo, petra, scenario.gauges, random)
  const equipment = await loadEquipment(demo, scenario, random)
  // After the equipment, which would be another by as many numbers as were drawn before it.
  const gaugeList = await loadGauges(demo, petra, scenario.laterGauges, random)
  say(`${equipment.length} pieces of equipment at ${scenario.sites.length} sites`)
  await loadStock(demo, people, random)
  await loadEarlierGuides(demo)
  const visits = await loadHistory(demo, people, gaugeList, equipment, random, say)
  const today = await loadTodaysVisits(demo, people, gaugeList, equipment, random)
  say(`${visits + today} visits, ${today} of them today`)
  return true
}

async function loadPeople(app: DemoApp, scenario: Scenario, random: Seeded) {
  const today = app.today()
  const system: Person = {
    id: random.uuid(),
    username: 'start',
    name: 'First start',
    roles: ['administrator'],
    active: true,
    version: 1,
    licences: [],
  }
  const people: Record<string, Person> = {}
  for (const { licences, ...p } of scenario.people) {
    const id = random.uuid()
    await createPerson(app, system, { ...p, id, password: DEMO_PASSWORD })
    for (const l of licences) {
      await addLicence(app, system, id, {
        id: random.uuid(),
        kind: l.kind,
        number: l.number,
        issuedOn: addDays(today, l.issued - 1500),
        expiresOn: addDays(today, l.expires),
      })
    }
    people[p.username] = await readPerson(app, id)
  }
  return people
}

async function loadGauges(app: DemoApp, actor: Person, list: Scenario['gauges'], random: Seeded) {
  const today = app.today()
  for (const { calibrated, until, ...g } of list) {
    const id = random.uuid()
    await gauges.createGauge(app, actor, { ...g, id })
    for (const year of [0, 1, 2, 3]) {
      await gauges.addCalibration(app, actor, id, {
        id: random.uuid(),
        calibratedOn: addDays(today, calibrated - 365 * year),
        validUntil: addDays(today, until - 365 * year),
        certificate: `CAL-${g.tag.slice(2)}-${2600 - year * 100 + random.whole(10, 99)}`,
      })
    }
  }
  return gauges.listGauges(app)
}
