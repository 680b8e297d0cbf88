import { fineGauge, type GaugeNature, GaugeResponse } from '../instrument'
import { apparatusOf, lineOf, onLine, type Role, type TestSite } from '../apparatus'
import { actionsOf, type Procedure, type ProcedureStep, type StepRecord } from '../procedure'
import { convertValue, type Dimension, fromSi, roundTo, toSi, unitDefinition } from '../quantity'
import { pickOpening, pickPlateau, swingOf } from '../trace'
import { type Answer, isPressure, type Reading } from '../rules'

/** The tester that carries a procedure out on a model: how patient, and with which gauge. */
export interface Tester {
  readonly gauge?: GaugeNature
  /** Uniform on 0 … 1; without it the gauge is perfect. */
  readonly random?: () => number
  /** Seconds between samples. */
  readonly periodS?: number
  /** Unit of the gauge that is taken for a pressure, where it is not that of the procedure. */
  readonly unitFor?: (kpa: number) => string | undefined
}

/** What a procedure read on a modelled assembly. */
export interface SimulatedTest {
  readonly readings: readonly Reading[]
  readonly answers: readonly Answer[]
  readonly order: readonly string[]
}

const PERIOD_S = 0.1
const REST_S = 20
/** A needle that goes on falling is read after this long, with how fast it still falls. */
const PATIENCE_S = 300
/** How long a tester waits for something to open before he takes it that it does not. */
const OPENING_S = 900
/** A reading that falls by more than this, beyond what it fell before, does not hold, kPa. */
const HOLDS_WITHIN_KPA = 1.5
/** How long a reading that is to hold is watched, s: the full minute that the procedures ask for. */
const WATCH_S = 60
const SETTLE_S = 5
/** A single pressure is read after this long at the latest: what creeps shows in the hold. */
const PROMPT_S = 60
/** A reading that is less than this part of what it was before has not held, however fast it went. */
const COLLAPSED = 4
/** Water that passes a shut shutoff, kg/s, from which on it is seen to leak. */
const SEEN_LEAK_KG_S = 1e-3
/** Elements whose opening, or tripping, a step may wait for. */
const OPENS: readonly Role[] = ['relief', 'air-inlet', 'slam-shut']
/** How long an open cock may run until what stood in the body has gone. */
const EMPTIES_S = 120

/** Carries a test procedure out on a modelled assembly, step by step as it is written. */
export function runTest(procedure: Procedure, site: TestSite, tester: Tester = {}): SimulatedTest {
  const bench = new Bench(site, tester)
  const readings: Reading[] = []
  const answers: Answer[] = []
  const order: string[] = []
  for (const step of procedure.steps) {
    const before = bench.lookFirst(step)
    bench.carryOut(step)
    const { record } = step
    if (!record) continue
    order.push(record.item)
    if (record.ask === 'answer') answers.push(bench.answer(record, before))
    else readings.push(bench.read(record))
  }
  return { readings, answers, order }
}

/** How long a step has its reading held, s. */
const holdOf = ({ record }: ProcedureStep): number =>
  record?.hold ? toSi({ dimension: 'time', ...record.hold }) : 0

/** What stood before a step, to tell afterwards what the step changed. */
interface Before {
  readonly shown: number
  /** Fall of the needle by itself, kPa a second. */
  readonly fall: number
  readonly running: readonly string[]
}

/** A site with a tester’s hands and eyes. */
class Bench {
  private readonly response: GaugeResponse | null
  private readonly period: number
  private trace: number[] = []

  constructor(
    private readonly site: TestSite,
    private readonly tester: Tester,
  ) {
    this.period = tester.periodS ?? PERIOD_S
    this.response = tester.random
      ? new GaugeResponse(tester.gauge ?? fineGauge, tester.random, site.atInstrument())
      : null
  }

  private sample(): number {
    const { site, period, response } = this
    site.advance(period)
    const differential = site.atInstrument()
    const shown = response ? response.sample(period, differential, site.bled()) : differential
    this.trace.push(shown)
    return shown
  }

  /** Waits; what the gauge shows at the end. */
  rest(seconds: number): number {
    let shown = 0
    for (let n = 0; n < Math.max(1, Math.round(seconds / this.period)); n++) shown = this.sample()
    return shown
  }

  /** A tester who is to say whether a reading holds looks first how it does before. */
  lookFirst(step: ProcedureStep): Before {
    if (step.record) this.site.look?.(step.record.item)
    const start = this.rest(1)
    const watched = step.record?.observe === 'reading-holds' ? REST_S : 0
    const shown = watched > 0 ? this.rest(watched) : start
    const fall = watched > 0 ? Math.max(0, (start - shown) / watched) : 0
    return { shown, fall, running: this.site.seen().running }
  }

  carryOut(step: ProcedureStep): void {
    for (const action of actionsOf(step)) {
      if (action.kind === 'apply') {
        this.site.apply?.(action.source, toSi(action.to))
        this.rest(action.lastsS)
        continue
      }
      if (action.kind === 'hose') {
        this.site.connect(action.hose, action.port)
        if (action.port) this.response?.refilled()
        continue
      }
      this.trace = []
      this.site.move(action.element, action.to)
      this.rest(action.lastsS)
    }
    const held = holdOf(step)
    if (held > 0) this.rest(held)
  }

  answer(record: StepRecord, before: Before): Answer {
    const options = record.answers ?? []
    const good = this.observe(record, before)
    const chosen = good ? options[0] : options.at(-1)
    return { item: record.item, answer: chosen?.id ?? '', label: chosen?.label ?? '' }
  }

  private lineOf({ item }: StepRecord): string {
    return lineOf(apparatusOf(this.site.layout.kind) ?? { lines: [] }, item)
  }

  private observe(record: StepRecord, before: Before): boolean {
    const { site } = this
    const line = this.lineOf(record)
    switch (record.observe) {
      case 'water-stops':
        return this.waterStops()
      case 'reading-holds':
        return this.holds(onLine(line, 'relief'), before)
      case 'relief-dry':
        return !this.seenAfterRest().running.includes(onLine(line, 'relief'))
      case 'shutoff-tight':
        this.rest(REST_S)
        return Math.abs(site.flow(onLine(line, 'shutoff-2'))) < SEEN_LEAK_KG_S
      case 'opens-fully':
        return this.seenAfterRest().wideOpen.includes('air-inlet')
      case 'meter-turns':
        return this.seenAfterRest().turning.length > 0
      case 'meter-still':
        return this.seenAfterRest().turning.length === 0
      case 'inlet-dry':
        return !this.seenAfterRest().running.includes('air-inlet')
      // Of what the model has nothing, and only a person can tell: it is taken as good.
      case undefined:
        return site.good?.(record.item) ?? true
    }
  }

  private seenAfterRest() {
    this.rest(REST_S)
    return this.site.seen()
  }

  /**
   * Whether a reading, once it has settled, stays and no relief starts to drip. What falls by itself
   * already, as behind a leaking check 1, says nothing of this step as long as it falls no faster.
   */
  private holds(relief: string, before: Before): boolean {
    const settled = this.rest(SETTLE_S)
    const shown = this.rest(WATCH_S)
    const byItself = before.fall * WATCH_S
    const opens = this.site.seen().running.includes(relief) && !before.running.includes(relief)
    if (opens && byItself < HOLDS_WITHIN_KPA) return false
    if (shown < before.shown / COLLAPSED) return false
    return settled - shown < byItself + HOLDS_WITHIN_KPA
  }

  /** Water that stood in the body runs out; what is fed runs on. */
  private waterStops(): boolean {
    for (let waited = 0; waited < EMPTIES_S; waited += REST_S) {
      this.rest(REST_S)
      if (this.site.seen().running.length === 0) return true
    }
    return false
  }

  read(record: StepRecord): Reading {
    const { si, fallPerMinute } =
      record.read === 'plateau' ? this.readRest(record) : { si: this.readOpening(record) }
    const dimension = record.dimension ?? 'differential'
    const unit = this.unitFor(dimension, si) ?? record.unit ?? 'kPa'
    const digits = unitDefinition(dimension, unit).digits
    const value = fromSi(dimension, Math.max(si, 0), unit)
    const swing =
      record.read === 'plateau' ? swingOf(Float64Array.from(this.trace), this.period) : undefined
    return {
      item: record.item,
      dimension,
      value: roundTo(value, digits + 1),
      unit,
      ...(record.hold ? { heldS: toSi({ dimension: 'time', ...record.hold }) } : {}),
      ...(swing === undefined ? {} : { swing: fromSi(dimension, swing, unit) }),
      ...(record.head ? { gaugeAbovePortM: this.site.gaugeAbovePortM } : {}),
      ...(fallPerMinute === undefined
        ? {}
        : { driftPerMinute: -fromSi(dimension, fallPerMinute, unit) }),
    }
  }

  /** Low pressures are taken with another gauge, which has a unit of its own. */
  private unitFor(dimension: Dimension, si: number): string | undefined {
    return isPressure(dimension) ? this.tester.unitFor?.(si) : undefined
  }

  private source() {
    const { resolution } = fineGauge
    return { periodS: this.period, resolution: this.response ? resolution : 1e-6 }
  }

  /** Waits until the needle rests; one that creeps on is read in the end, with how fast it falls. */
  private readRest(record: StepRecord): { si: number; fallPerMinute?: number } {
    const { creep } = record
    const patience = record.dimension === 'gaugePressure' ? PROMPT_S : PATIENCE_S
    const most = creep
      ? convertValue('differential', Number(creep.value), creep.unit, 'kPa')
      : record.restPercent === undefined
        ? Infinity
        : (record.restPercent / 100) * Math.abs(this.trace.at(-1) ?? 0)
    for (let waited = REST_S; ; waited += REST_S) {
      const from = this.rest(1)
      const last = this.rest(REST_S - 1)
      const fall = ((from - last) / (REST_S - 1)) * 60
      const picked = this.response
        ? pickPlateau(Float64Array.from(this.trace), this.source(), most)
        : null
      if (picked) return { si: picked.value, fallPerMinute: -picked.driftPerMinute }
      if (!this.response && Math.abs(fall) <= most) return { si: last, fallPerMinute: fall }
      if (waited >= patience || last <= 0) return { si: last, fallPerMinute: fall }
    }
  }

  private readOpening(record: StepRecord): number {
    const ids = this.site.layout.elements
      .filter((e) => OPENS.includes(e.role))
      .filter((e) => e.line === this.lineOf(record))
      .map((e) => e.id)
    const open = () => {
      const { running, lifted } = this.site.seen()
      return ids.some((id) => running.includes(id) || lifted.includes(id))
    }
    const deadline = this.site.time + OPENING_S
    let before = this.trace.at(-1) ?? this.sample()
    while (!open()) {
      // What was raised and did not open is read where it stands.
      if (this.site.time > deadline) return record.dimension === 'gaugePressure' ? before : 0
      const shown = this.sample()
      if (open()) break
      // The needle is down and nothing has opened.
      if (shown < 0.3 && before < 0.3) return 0
      before = shown
    }
    if (!this.response) return before
    this.rest(0.6)
    return pickOpening(Float64Array.from(this.trace), this.source())?.value ?? before
  }
}
