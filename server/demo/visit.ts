import { type Gauge, nominalsOf, type Person } from '@uvanta/contract'
import type { Fault } from '@uvanta/core/apparatus'
import { type TestPlan, testPlanOf } from '@uvanta/core/library'
import { roundTo, unitDefinition } from '@uvanta/core/quantity'
import { addDays } from '@uvanta/core/calendar'
import { runTest, siteModelOf } from '@uvanta/core/simulate'
import { ASIDE, type Reading } from '@uvanta/core/rules'
import type { EventDraft, EventKind, PayloadOf, RunName, VisitEvent } from '@uvanta/core/visit'
import { channelsShowing, draftOf, finalRun, foldVisit, verdictOf } from '@uvanta/core/visit'
import { isAssemblyKind } from '@uvanta/core/apparatus/backflow'
import { appendEvents, appendGuarded } from '../service/visit/append'
import { inLog, type OpenLog } from '../service/visit/openLog'
import { issueCertificate } from '../service/certificate/issue'
import { planVisit } from '../service/visit/visits'
import type { DemoEquipment } from './equipment'
import { gaugesFor, instrumentOf } from './gauges'
import { packFor } from './packs'
import type { DemoApp } from './app'
import type { Seeded } from './random'
import { specOf } from './virtualSite'

/** Longer than the next entry takes: what is signed arrives, and is certified, afterwards. */
const SIGNING_MINUTES = 4

/** Early enough that every visit of the demo was planned before the day on which it is loaded. */
export const PLANNED_DAYS_BEFORE = 14

/** One demo visit, carried out through the same use cases as a real one, at the time it is said to happen. */
export class DemoVisit {
  private minutes = 0
  private readonly id: string
  /** What is written of it so far: nobody else writes to it. */
  private events: readonly VisitEvent[] = []
  /** Its log, while all of it is written in one transaction. */
  private open: OpenLog | null = null
  constructor(
    private readonly app: DemoApp,
    private readonly random: Seeded,
    private readonly equipment: DemoEquipment,
    private readonly technician: Person,
    private readonly gauges: readonly Gauge[],
    private readonly date: string,
    startMinutes: number,
  ) {
    this.id = random.uuid()
    this.minutes = startMinutes
  }

  async plan(purpose: PayloadOf<'planned'>['purpose'] = 'periodic-test'): Promise<void> {
    const planned = this.app.at(addDays(this.date, -PLANNED_DAYS_BEFORE), 0)
    const { events } = await planVisit(planned, this.technician, {
      id: this.id,
      equipmentId: this.equipment.id,
      technicianId: this.technician.id,
      plannedOn: this.date,
      purpose,
      rulePack: packFor(this.equipment.kind),
    })
    this.events = events as unknown as VisitEvent[]
  }

  /** The test that the house’s pack prescribes for this equipment. */
  prescribed(): TestPlan {
    return testPlanOf(this.app.shelf.library, packFor(this.equipment.kind), this.equipment.kind)
  }

  async arrive(): Promise<void> {
    await this.append(
      [
        'note',
        { station: 'prepare', text: 'Gauge, hoses and rag packed. Kit checked against the list.' },
      ],
      ['station-done', { station: 'prepare' }],
      ['identity', { outcome: 'confirmed' }],
      ['station-done', { station: 'arrive' }],
    )
  }

  /** The test as the modelled equipment answers it, with these faults and springs worn to a part. */
  async test(run: RunName, faults: readonly Fault[], worn = 1): Promise<void> {
    const { equipment, technician, date } = this
    const { pack, procedure } = this.prescribed()
    const licence = technician.licences.find((l) => l.kind === pack.licence)
    if (!licence) throw new Error(`${technician.name} cannot test ${equipment.tag} on ${date}`)
    const nominals = nominalsOf(equipment)
    const gauges = gaugesFor(procedure, nominals, this.gauges, date)
    const { virtualSite } = equipment
    const model = siteModelOf(specOf(virtualSite, faults, worn))
    if (!model) throw new Error(`nothing models a ${equipment.kind}`)
    const found = runTest(procedure, model, { periodS: SAMPLE_S, ...lowPressures(equipment) })
    const instruments = gauges.map((g) => instrumentOf(g, date))
    const steps = procedure.steps.map((step): Spec[] => {
      const done: Spec = ['step-done', { run, step: step.id }]
      const item = step.record?.item
      const answer = found.answers.find((a) => a.item === item)
      const reading = found.readings.find((r) => r.item === item)
      if (answer) return [['answer', { run, ...answer }], done]
      if (!reading) return [done]
      const payload = { run, ...typed(reading, instruments, step.record?.aside) }
      return [['reading', payload, Math.ceil((reading.heldS ?? 0) / 60)], done]
    })
    await this.append(
      [
        'test-started',
        {
          run,
          procedureId: procedure.id,
          procedureVersion: procedure.version,
          packVersion: pack.version,
          instruments,
          licence: { kind: licence.kind, number: licence.number, expiresOn: licence.expiresOn },
          ...(isAssemblyKind(equipment.kind)
            ? {
                linePressure: {
                  dimension: 'gaugePressure' as const,
                  value: roundTo(virtualSite.supplyKpa / 6.894757, 0),
                  unit: 'psi',
                },
              }
            : {}),
        },
      ],
      ...steps.flat(),
      ['test-finished', { run }],
    )
  }

  passed(run: RunName): boolean {
    const state = foldVisit(this.events)
    return verdictOf(state, run, this.app.shelf.library)?.outcome.startsWith('pass') ?? false
  }

  async skipToReturn(): Promise<void> {
    await this.append(
      ['station-done', { station: 'as-found', skipTo: 'return' }],
      ['station-done', { station: 'return' }],
    )
  }

  async repair(payload: PayloadOf<'repair'>): Promise<void> {
    await this.append(
      ['station-done', { station: 'as-found' }],
      ['station-done', { station: 'make-safe' }],
      ['station-done', { station: 'open-up' }],
      ['repair', payload],
      ['station-done', { station: 'rebuild' }],
      ['station-done', { station: 'return' }],
    )
  }

  /** Carries out all of it in one transaction, to the signature. */
  async atOnce(work: () => Promise<void>): Promise<void> {
    await inLog(this.app, this.id, async (log) => {
      this.open = log
      await work()
      return this.open
    })
    this.open = null
  }

  /** Signs without asking for the password, which the demo's people do not type. Part of what is done at once. */
  async sign(): Promise<void> {
    const clock = this.app.at(this.date, this.minutes + SIGNING_MINUTES)
    await this.write(async (log) => {
      const run = finalRun(log.state)
      const outcome = run ? verdictOf(log.state, run, clock.shelf.library)?.outcome : undefined
      const draft = this.draft('signed', {
        signature: SIGNATURE,
        name: this.technician.name,
        outcome: outcome ?? 'not-assessed',
      })
      const signed = await appendGuarded(clock, this.technician, log, log.events.length, [draft])
      return issueCertificate(clock, this.technician, signed)
    })
  }

  private async write(work: (log: OpenLog) => Promise<OpenLog>): Promise<void> {
    if (!this.open) throw new Error('what is signed is carried out at once')
    this.open = await work(this.open)
    this.events = this.open.events
  }

  async append(...specs: Spec[]): Promise<void> {
    const drafts = specs.map(([kind, payload, held = 0]) => {
      this.minutes += held
      return this.draft(kind, payload)
    })
    const clock = this.app.at(this.date, this.minutes)
    if (this.open)
      return this.write((log) =>
        appendGuarded(clock, this.technician, log, log.events.length, drafts),
      )
    const added = await appendEvents(clock, this.technician, this.id, this.events.length, drafts)
    this.events = [...this.events, ...added]
  }

  private draft<K extends EventKind>(kind: K, payload: PayloadOf<K>): EventDraft {
    this.minutes += this.random.whole(1, 3)
    const deviceTime = this.app.at(this.date, this.minutes).now().toISO()
    return draftOf(kind, payload, { id: this.random.uuid(), deviceTime, deviceOffset: 0 })
  }
}

/** Low gas pressures are read on a manometer, in inches of water. */
const MANOMETER_KPA = 24
/** A digital manometer shows hundredths of an inch of water. */
const MANOMETER_DIGITS = 2
const lowPressures = ({ setPoint }: DemoEquipment) =>
  setPoint?.unit === 'inH2O'
    ? { unitFor: (kpa: number) => (kpa < MANOMETER_KPA ? 'inH2O' : undefined) }
    : {}

/** Seconds between samples of a demo’s test; coarse, since nobody looks at the trace. */
const SAMPLE_S = 0.5

/** A modelled reading as a technician types it: one digit less than the model gives. */
function typed(
  { item, dimension, value, unit, heldS }: Reading,
  instruments: PayloadOf<'test-started'>['instruments'],
  aside = false,
) {
  const digits = unit === 'inH2O' ? MANOMETER_DIGITS : unitDefinition(dimension, unit).digits
  const [shows] = channelsShowing({ instruments }, dimension, Number(value), unit)
  const channel = aside ? ASIDE : instruments.length > 1 ? shows : undefined
  return {
    item,
    dimension,
    value: roundTo(Number(value), digits),
    unit,
    source: 'typed' as const,
    ...(channel ? { channel } : {}),
    ...(heldS === undefined ? {} : { heldS }),
  }
}

/** What is written, and for how many minutes something was held before it. */
type Spec = { [K in EventKind]: [K, PayloadOf<K>, number?] }[EventKind]

const SIGNATURE =
  'M 30 80 C 60 20 80 20 85 70 C 90 100 110 90 130 60 C 150 30 160 60 170 75 C 185 95 210 60 230 62 C 260 64 270 90 300 70 C 320 58 340 66 360 60'
