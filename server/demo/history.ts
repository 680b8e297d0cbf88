import type { Gauge, Person } from '@uvanta/contract'
import { addDays } from '@uvanta/core/programme'
import { DateTime } from 'luxon'
import type { DemoEquipment } from './equipment'
import type { DemoApp } from './app'
import type { Seeded } from './random'
import { DEMO_PACK } from './app'
import { DemoVisit } from './visit'
import { someFault } from './virtualSite'

const YEARS = [3, 2, 1]

/** Part of its springs that an assembly loses in a year. */
type WearPerYear = number

/** Three years of periodic tests of everything the rule pack has a test for. */
export async function loadHistory(
  app: DemoApp,
  people: Readonly<Record<string, Person>>,
  gauges: readonly Gauge[],
  equipment: readonly DemoEquipment[],
  random: Seeded,
  say: (line: string) => void,
): Promise<number> {
  const pack = app.shelf.library.rulePacks.find((p) => p.id === DEMO_PACK)
  const testable = equipment.filter((e) => pack?.tests.some((t) => t.kind === e.kind))
  const technicians = [people.odda, people.teo] as Person[]
  const planned = testable.flatMap((e) => {
    const wear = random.between(0.004, 0.03)
    return YEARS.map((year) => ({
      e,
      year,
      wear,
      date: testDate(app.today(), e.dueIn, year, random),
    }))
  })
  planned.sort((a, b) => a.date.localeCompare(b.date))
  for (const [index, { e, year, wear, date }] of planned.entries()) {
    const technician = random.pick(
      technicians.filter((t) =>
        t.licences.some((l) => l.kind === pack?.licence && l.expiresOn >= date),
      ),
    )
    const gauge = inCalibration(
      gauges.filter((g) => g.spanUnit === 'psi' && g.span === '15'),
      date,
    )
    await periodicTest(
      new DemoVisit(app, random, e, technician, gauge, date, random.whole(0, 400)),
      e,
      year,
      wear,
      app.today(),
      random,
    )
    if ((index + 1) % 50 === 0) say(`${index + 1} of ${planned.length} past visits`)
  }
  return planned.length
}

/** A year before the due date, give or take three weeks; never after yesterday. */
function testDate(today: string, dueIn: number, year: number, random: Seeded): string {
  const due = DateTime.fromISO(addDays(today, dueIn), { zone: 'utc' })
  const date = due
    .minus({ years: year })
    .plus({ days: random.whole(-20, 12) })
    .toISODate() as string
  const yesterday = addDays(today, -1)
  return date < yesterday ? date : yesterday
}

export function inCalibration(gauges: readonly Gauge[], date: string): Gauge {
  const fit = gauges.find((g) =>
    g.calibrations.some((c) => c.calibratedOn <= date && date <= c.validUntil),
  )
  if (!fit) throw new Error(`no gauge in calibration on ${date}`)
  return fit
}

const REPAIRS: Readonly<Record<string, string>> = {
  fouled: 'Debris on the disc. Wiped clean, nothing renewed.',
  'disc-cut': 'Disc cut. Disc and cover O-ring renewed.',
  'seat-nicked': 'Seat nicked. Seat and its O-ring renewed.',
  'diaphragm-torn': 'Relief diaphragm torn. Diaphragm and seat disc renewed.',
  'passage-blocked': 'Sensing passage blocked by scale. Cleared.',
}

async function periodicTest(
  visit: DemoVisit,
  equipment: DemoEquipment,
  year: number,
  wear: WearPerYear,
  today: string,
  random: Seeded,
): Promise<void> {
  const worn = 1 - (3 - year) * wear
  await visit.plan()
  await visit.arrive()
  const { virtualSite } = equipment
  const fault = virtualSite && random.chance(0.14) ? someFault(virtualSite.kind, random) : null
  await visit.test('as-found', fault ? [fault] : [], worn)
  if (await visit.passed('as-found')) {
    await visit.skipToReturn()
    return visit.sign()
  }
  await visit.repair({
    text: `${fault?.element ?? 'assembly'}: ${REPAIRS[fault?.fault ?? ''] ?? 'Spring and disc renewed from the kit.'}`,
    parts: random.chance(0.5)
      ? [{ name: 'Repair kit', number: `K-${random.whole(100, 999)}`, quantity: 1 }]
      : [],
    ...(year === 1 && random.chance(0.3)
      ? {
          temporary: {
            until: addDays(today, random.whole(10, 70)),
            permittedBy: 'Larkhaven Water Authority',
          },
        }
      : {}),
  })
  const beyondRepair = year === 1 && random.chance(0.35)
  await visit.test('as-left', beyondRepair && fault ? [fault] : [])
  await visit.sign()
}
