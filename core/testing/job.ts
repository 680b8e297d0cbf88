import { DateTime } from 'luxon'
import {
  type Guide,
  type GuideStation,
  movesOf,
  nextStep,
  type PlacedStep,
  relaxingOf,
} from '../guide'
import { familyOf, kitOf, pinsInForce, rulePackOf, sheetsOf } from '../library'
import {
  countedOf,
  kitsNeeded,
  kitTaken,
  type EventDraft,
  type EventKind,
  appended,
  draftOf,
  emptyLog,
  guard,
  type GuardContext,
  gaugeAsInstrument,
  guideOfVisit,
  missingSlots,
  type PayloadOf,
  piecesWanted,
  planOfVisit,
  type Refusal,
  renewalAdviceAt,
  runOfGuide,
  type RunName,
  shutOff,
  siteOfVisit,
  slotFigure,
  type Station,
  type VisitEvent,
  type VisitState,
} from '../visit'
import { shippedLibrary } from './library'

const START = '2026-06-01T08:00:00.000Z'

const LICENCES = [
  'backflow-tester',
  'backflow-tester-check-first',
  'gas-regulator',
  'service-authorisation',
]

const GAUGE = {
  id: '018f0000-0000-7000-8000-000000900777',
  tag: 'G-1',
  serial: 'S-1',
  accuracyPercent: 0.25,
  accuracyOf: 'span',
  span: 15,
  spanUnit: 'psi',
  calibratedOn: '2026-01-01',
  calibrationUntil: '2026-12-31',
  calibrationCertificate: 'CAL-1',
} as const

export interface JobOptions {
  readonly family: string
  readonly kind: string
  /** Absent for a kind without a field test. */
  readonly packId?: string
  readonly newId?: (n: number) => string
  /** What flows through it; water when absent. */
  readonly service?: 'water' | 'gas'
  /** What the equipment is judged by, as its set point. */
  readonly nominals?: PayloadOf<'planned'>['equipment']['nominals']
  /** What the visit before left it at. */
  readonly previous?: PayloadOf<'planned'>['previous']
  /** When it begins. */
  readonly from?: string
  /** What an inspection sees: defects by part; sound when absent. */
  readonly defects?: Readonly<Record<string, readonly string[]>>
  /** Findings against the house’s policy, by part, and answers other than the first, by question. */
  readonly findings?: Readonly<Record<string, string>>
}

const uuid = (n: number) => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`

const packInForce = (id: string) => rulePackOf(shippedLibrary, id)

/** A visit carried out event by event as a careful technician would, for tests. */
export class Job {
  log = emptyLog
  refused: Refusal | null = null
  private now: DateTime
  private made = 0
  readonly context: GuardContext = {
    library: shippedLibrary,
    person: {
      roles: ['technician'],
      licences: LICENCES.map((kind) => ({
        kind,
        number: `${kind}-1`,
        expiresOn: '2030-01-01',
      })),
    },
  }

  constructor(private readonly options: JobOptions) {
    this.now = DateTime.fromISO(options.from ?? START, { zone: 'utc' })
    const { family, kind, packId } = options
    const planned = this.event('planned', {
      purpose: 'overhaul',
      plannedOn: '2026-06-01',
      ...(packId ? { packId, packVersion: packInForce(packId).version } : {}),
      pins: pinsInForce(shippedLibrary, {
        family,
        kind,
        packId,
        programme: familyOf(shippedLibrary, family).programme,
      }),
      equipment: {
        id: uuid(900_001),
        tag: 'X-1',
        family,
        kind,
        sizeIn: '2',
        serial: 'S1',
        maker: 'Maker A',
        service: options.service ?? 'water',
        position: 'Pit',
        site: 'Bath',
        address: '1 Seagate',
        customer: 'Bath',
        ...(options.nominals ? { nominals: options.nominals } : {}),
      },
      ...(options.previous ? { previous: options.previous } : {}),
    })
    this.log = appended(this.log, [planned])
  }

  private event<K extends EventKind>(kind: K, payload: PayloadOf<K>): VisitEvent {
    this.made++
    this.now = this.now.plus({ seconds: 1 })
    const about = {
      id: (this.options.newId ?? uuid)(this.made),
      deviceTime: this.now.toISO() ?? '',
      deviceOffset: 0,
    }
    return { ...draftOf(kind, payload, about), personId: 'p', personName: 'P' }
  }

  /** Lets time pass. */
  wait(minutes: number): this {
    this.now = this.now.plus({ minutes })
    return this
  }

  /** Writes an event if the guards let it; `refused` says what they said. */
  write<K extends EventKind>(kind: K, payload: PayloadOf<K>): this {
    const event = this.event(kind, payload)
    this.refused = guard(this.log, event, this.context)
    if (!this.refused) this.log = appended(this.log, [event])
    return this
  }

  /** Writes an event that must be taken. @throws Error with the refusal */
  must<K extends EventKind>(kind: K, payload: PayloadOf<K>): this {
    this.write(kind, payload)
    if (this.refused)
      throw new Error(
        `${kind} ${JSON.stringify(payload)}: ${this.refused.why} ${this.refused.remedy}`,
      )
    return this
  }

  get events(): readonly VisitEvent[] {
    return this.log.events
  }
  get state(): VisitState {
    return this.log.state
  }
  get run() {
    const run = runOfGuide(this.state, shippedLibrary)
    if (!run) throw new Error('no guide was chosen')
    return run
  }
  /** The events as a device sends them, without the plan that the server writes. */
  get drafts(): EventDraft[] {
    return this.events.slice(1).map(({ personId: _, personName: __, ...draft }) => draft)
  }

  choose(guide: Guide, variant: string, withSheet = true, jobs: readonly string[] = []): this {
    const sheet = withSheet ? sheetsOf(shippedLibrary, this.options.family)[0] : undefined
    return this.must('guide-chosen', {
      guideId: guide.id,
      version: guide.version,
      variant,
      ...(jobs.length > 0 ? { jobs: [...jobs] } : {}),
      ...(sheet ? { sheet: { id: sheet.id, version: sheet.version } } : {}),
    })
  }

  /** Counts the kits that are needed as their lists say. */
  takeKit(): this {
    const { guide: chosen } = this.state
    const sheet = shippedLibrary.specSheets.find((s) => s.id === chosen?.sheet?.id)
    for (const job of kitsNeeded(this.run)) {
      if (kitTaken(this.state, job)) continue
      const kit = kitOf(sheet, chosen?.guideId ?? '', job)
      this.must('kit-taken', {
        number: kit?.number ?? 'K-0',
        how: 'typed',
        ...(job ? { job } : {}),
        items: this.run.kit
          .filter((k) => k.job === job)
          .map((k) => ({
            item: k.id,
            count: kit?.items.find((i) => i.item === k.id)?.count ?? k.count,
          })),
      })
    }
    return this
  }

  /** Accounts for the kit: what was fitted, the rest left over. */
  closeKit(): this {
    if (kitsNeeded(this.run).every((job) => !kitTaken(this.state, job))) return this
    return this.must('kit-closed', {
      lines: this.run.kit.map((k) => {
        const counted = countedOf(this.state, k.id)
        return { item: k.id, used: k.used, spare: 0, left: counted - k.used, missing: 0, empty: 0 }
      }),
    })
  }

  /** The step of a station that is due. */
  due(at: GuideStation): PlacedStep | null {
    return nextStep(this.run, at)
  }

  /** Carries out the steps of a station, or those before one that `until` names. */
  carryOut(at: GuideStation, until?: (step: PlacedStep) => boolean): this {
    for (let step = this.due(at); step && !until?.(step); step = this.due(at)) this.doStep(step)
    return this
  }

  /** Does everything that a step wants, then records it. */
  doStep(step: PlacedStep): this {
    if (this.run.kit.some((k) => k.job && k.id === step.from)) this.takeKit()
    for (const slot of missingSlots(this.state, shippedLibrary, step)) {
      const slots = guideOfVisit(this.state, shippedLibrary)?.guide.slots
      const torque = slots?.find((s) => s.id === slot)?.dimension === 'torque'
      this.must('guide-value', {
        slot,
        value: '8',
        ...(torque ? { unit: 'N·m' } : {}),
        source: 'Sheet of maker A, page 4, 2025',
      })
    }
    if (step.locked) this.lockAll()
    for (const move of movesOf(step)) {
      const lock = this.state.locks[move.element]
      if (lock && move.to !== 'shut')
        this.must('lock', { element: move.element, number: lock.number, on: false })
      if (this.state.valves[move.element] !== move.to) this.must('valve-moved', move)
    }
    if (step.count === 'kit') this.takeKit()
    if (step.prove) this.proveZone(step.prove)
    const relaxing = relaxingOf(step)
    if (relaxing) {
      const least = Number(
        slotFigure(this.state, shippedLibrary, relaxing.rounds ?? '')?.value ?? 1,
      )
      for (let round = 1; round <= least; round++)
        this.must('guide-round', { step: step.id, moved: round < least })
    }
    if (step.hold) {
      this.must('guide-timer', { step: step.id })
      this.wait(Number(slotFigure(this.state, shippedLibrary, step.hold)?.value ?? 0))
    }
    return this.must('guide-step', { step: step.id, at: step.at, ...this.finding(step) })
  }

  lockAll(): this {
    const site = siteOfVisit(this.state, shippedLibrary)
    for (const { id } of site ? shutOff(site, this.state.valves) : [])
      if (!this.state.locks[id]) this.must('lock', { element: id, number: `L-${id}`, on: true })
    return this
  }

  proveZone(zone: string): this {
    return this.must('zone-proved', {
      zone,
      reading: { dimension: 'gaugePressure', value: '0', unit: 'psi' },
      heldMinutes: 2,
      by: 'P',
    })
  }

  private finding(step: PlacedStep): Partial<PayloadOf<'guide-step'>> {
    const written = step.snapshot || step.writes ? { setting: '3½ turns from fully out' } : {}
    const pieces = piecesWanted(this.state, shippedLibrary, step)
    return {
      ...written,
      ...(pieces === undefined ? {} : { pieces }),
      ...this.found(step),
    }
  }

  private found(step: PlacedStep): Partial<PayloadOf<'guide-step'>> {
    const mm = (value: string) => ({ value, unit: 'mm' }) as const
    if (step.photograph) return { unphotographed: true }
    if (step.measure === 'grooves') {
      const grooves = 6
      return {
        counted: { grooves, rings: grooves - (step.emptyOnPurpose ?? 0) + (step.doubled ?? 0) },
      }
    }
    if (step.measure) return { throws: { one: mm('31'), other: mm('31') } }
    if (step.temporary) return { temporary: { until: '2026-07-01', permittedBy: 'The authority' } }
    if (step.answers) return { finding: this.options.findings?.[step.ask] ?? step.answers[0]?.id }
    if (!step.verdicts) return {}
    const part = step.inspect
    const defects = [...(this.options.defects?.[part] ?? [])]
    const chosen = this.options.findings?.[part]
    if (chosen) return { finding: chosen, defects, departure: 'None at hand' }
    const advice = renewalAdviceAt(this.state, shippedLibrary, step, defects)
    return { finding: advice.verdict, defects }
  }

  done(station: Station, skipTo?: 'return'): this {
    return this.must('station-done', { station, ...(skipTo ? { skipTo } : {}) })
  }

  /** Begins the test that the plan wants, with a gauge in calibration. */
  startTest(run: RunName): this {
    const plan = planOfVisit(this.state, shippedLibrary, run)
    if (!plan) throw new Error(`${this.options.kind} has no test`)
    const licence = this.context.person.licences.find((l) => l.kind === plan.pack.licence)
    if (!licence) throw new Error(`the technician holds no licence ${plan.pack.licence}`)
    return this.must('test-started', {
      run,
      procedureId: plan.procedure.id,
      procedureVersion: plan.procedure.version,
      instruments: [gaugeAsInstrument(GAUGE)],
      licence,
    })
  }

  /** From Prepare to the point where it is made safe. */
  toMakeSafe(): this {
    this.takeKit().carryOut('prepare').done('prepare')
    this.must('identity', { outcome: 'confirmed' }).carryOut('arrive').done('arrive')
    this.carryOut('as-found')
    return this.must('as-found-impossible', { reason: 'Shut off since the flood' }).done('as-found')
  }

  /** From Make safe to the end of Return. */
  toAsLeft(): this {
    this.carryOut('make-safe').done('make-safe')
    this.carryOut('open-up').done('open-up')
    this.must('repair', { text: 'By the guide', parts: [] })
    this.carryOut('rebuild').closeKit().done('rebuild')
    return this.carryOut('return').done('return')
  }
}
