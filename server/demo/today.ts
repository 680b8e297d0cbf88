import type { Gauge, Person } from '@uvanta/contract'
import { addDays } from '@uvanta/core/calendar'
import { supersedeCertificate, voidCertificate } from '../service/certificate/release'
import { readEvents } from '../service/visit/log'
import { correctAttested } from '../service/visit/sign'
import type { DemoEquipment } from './equipment'
import type { DemoApp } from './app'
import type { Seeded } from './random'
import { planDay } from './day'
import { DEMO_PACK } from './packs'
import { DemoVisit, PLANNED_DAYS_BEFORE } from './visit'

/** Visits around today in every state, and certificates that did not stay. */
export async function loadTodaysVisits(
  app: DemoApp,
  people: Readonly<Record<string, Person>>,
  gauges: readonly Gauge[],
  equipment: readonly DemoEquipment[],
  random: Seeded,
): Promise<number> {
  const { odda, teo, ivo } = people as Record<string, Person> & {
    odda: Person
    teo: Person
    ivo: Person
  }
  const today = app.today()
  const pack = app.shelf.library.rulePacks.find((p) => p.id === DEMO_PACK)
  const testable = equipment.filter((e) => pack?.tests.some((t) => t.kind === e.kind))
  const rps = testable.filter((e) => e.kind === 'RP')
  const rp = (index: number) => rps[index % rps.length] as DemoEquipment
  const visitTo = (e: DemoEquipment, who: Person, date = today, minutes = 0) =>
    new DemoVisit(app, random, e, who, gauges, date, minutes)

  const signed = visitTo(rp(3), odda, today, -40)
  await signed.plan()
  await signed.atOnce(async () => {
    await signed.arrive()
    await signed.test('as-found', [])
    await signed.skipToReturn()
    await signed.sign()
  })

  const underWay = visitTo(rp(1), odda)
  await underWay.plan('failed-test')
  await underWay.arrive()
  await underWay.test('as-found', [{ element: 'check-1', fault: 'spring-weak', severity: 0.7 }])

  // The office plans ahead: nothing of it is news on the day itself.
  const planned = await planDay(
    app.at(addDays(today, -PLANNED_DAYS_BEFORE - 3), 0),
    people,
    equipment,
    today,
  )
  const stopped = visitTo(rp(6), teo)
  await stopped.plan('complaint')
  await stopped.append([
    'stopped',
    { reason: 'Pit flooded to the cover. Pump ordered, to be planned again.' },
  ])
  for (const [n, index] of [4, 7, 9, 11].entries())
    await visitTo(rp(index), odda, addDays(today, n + 1)).plan()

  await withdrawCertificates(app, people, ivo)
  return planned + 7
}

async function withdrawCertificates(
  app: DemoApp,
  people: Readonly<Record<string, Person>>,
  reviewer: Person,
): Promise<void> {
  const oldest = await app.db.certificates.findAll({ order: [['issuedAt', 'ASC']], limit: 12 })
  const [first, ...others] = oldest
  const [tester] = Object.values(people).filter((p) =>
    p.licences.some((l) => l.kind === 'backflow-tester' && l.expiresOn >= app.today()),
  )
  const third = others.find((c) => c.technician === tester?.name)
  if (first) {
    await voidCertificate(
      app,
      reviewer,
      first.id,
      'Issued for the assembly next door; tested again the week after.',
    )
  }
  if (!third || !tester) return
  const events = await readEvents(app, third.visitId)
  const reading = events.find((e) => e.kind === 'reading')
  if (!reading) return
  const payload = { ...reading.payload, value: '2.7' }
  await correctAttested(app, tester, third.visitId, events.length, {
    id: app.newId(),
    kind: 'correction',
    payload: { of: reading.id, why: 'Two digits exchanged when typing.', withdraw: false, payload },
    deviceTime: app.now().toISO(),
    deviceOffset: 0,
  })
  await supersedeCertificate(app, reviewer, third.id, 'Two digits exchanged when typing.')
}
