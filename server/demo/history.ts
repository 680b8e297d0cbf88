import type { Gauge, Person } from '@uvanta/contract'
import { testPlanOf } from '@uvanta/core/library'
import { addDays } from '@uvanta/core/calendar'
import { isAssemblyKind } from '@uvanta/core/apparatus/backflow'
import { DateTime } from 'luxon'
import type { DemoEquipment } from './equipment'
import type { DemoApp } from './app'
import type { Fault, FaultKind } from '@uvanta/core/apparatus'
import type { Seeded } from './random'
import { packFor } from './packs'
import { DemoVisit } from './visit'
import { ageing, someFault } from './virtualSite'

const YEARS = [3, 2, 1]
/** One in so many pieces is new and was never tested. */
const NEW_EVERY = 29
/** A regulator is set anew by hand, and drifts less than a spring wears. */
const REGULATOR_WEAR = 0.8
/** How stiff a machine has become for each part that a spring would have lost. */
const AGEING = 1.5

/** Part of its springs that an assembly loses in a year. */
type WearPerYear = number

/** Three years of periodic tests of everything. */
export async function loadHistory(
  app: DemoApp,
  people: Readonly<Record<string, Person>>,
  gauges: readonly Gauge[],
  equipment: readonly DemoEquipment[],
  random: Seeded,
  say: (line: string) => void,
): Promise<number> {
  const technicians = [people.odda, people.teo] as Person[]
  const planned = equipment.flatMap((e, n) => {
    if (n % NEW_EVERY === NEW_EVERY - 1) return []
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
    const { pack } = testPlanOf(app.shelf.library, packFor(e.kind), e.kind)
    const technician = random.pick(
      technicians.filter((t) =>
        t.licences.some((l) => l.kind === pack.licence && l.expiresOn >= date),
      ),
    )
    const visit = new DemoVisit(app, random, e, technician, gauges, date, random.whole(0, 400))
    await visit.plan()
    await visit.atOnce(() => periodicTest(visit, e, year, wear, app.today(), random))
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

const REPAIRS: Readonly<Partial<Record<FaultKind, string>>> = {
  fouled: 'Debris on the seat. Wiped clean, nothing renewed.',
  'disc-cut': 'Disc cut. Disc and cover O-ring renewed.',
  'seat-nicked': 'Seat nicked. Seat and its O-ring renewed.',
  'diaphragm-torn': 'Relief diaphragm torn. Diaphragm and seat disc renewed.',
  'passage-blocked': 'Sensing passage blocked by scale. Cleared.',
  'seal-worn': 'Seal worn. Renewed from the kit with the others.',
  dry: 'Dry and stiff. Cleaned, lubricated, moved free.',
  'zero-off': 'Zero had wandered. Set anew.',
  'span-off': 'Span had wandered. Zero, then span set anew.',
  'linkage-worn': 'Linkage worn. Pins renewed, stroke set anew.',
}

/** What was done about it, in the words of the record. */
function workOn(fault: Fault | null): string {
  if (!fault) return 'Set anew, cleaned and lubricated.'
  const part = fault.element.replaceAll('-', ' ')
  return `${part.charAt(0).toUpperCase()}${part.slice(1)}: ${REPAIRS[fault.fault] ?? 'Spring and disc renewed from the kit.'}`
}

async function periodicTest(
  visit: DemoVisit,
  equipment: DemoEquipment,
  year: number,
  wear: WearPerYear,
  today: string,
  random: Seeded,
): Promise<void> {
  const worn = 1 - (3 - year) * wear * (isAssemblyKind(equipment.kind) ? 1 : REGULATOR_WEAR)
  await visit.arrive()
  const fault = random.chance(0.14) ? someFault(equipment.kind, random) : null
  const aged = ageing(equipment.kind, AGEING * (1 - worn))
  await visit.test('as-found', [...(fault ? [fault] : []), ...aged], worn)
  if (visit.passed('as-found')) {
    await visit.skipToReturn()
    return visit.sign()
  }
  await visit.repair({
    text: workOn(fault),
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
