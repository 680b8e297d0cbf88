import type { SiteModel } from '../assembly'
import { fineGauge, type GaugeNature, GaugeResponse } from '../assembly'
import {
  actionsOf,
  type Observation,
  type Procedure,
  type ProcedureStep,
  type StepRecord,
} from '../procedure'
import { convertValue, roundTo, unitDefinition } from '../quantity'
import { pickOpening, pickPlateau } from '../trace'
import type { Answer, Reading } from '../verdict'

/** The tester that carries a procedure out on a model: how patient, and with which gauge. */
export interface Tester {
  readonly gauge?: GaugeNature
  /** Uniform on 0 … 1; without it the gauge is perfect. */
  readonly random?: () => number
  /** Seconds between samples. */
  readonly periodS?: number
}

/** What a procedure read on a modelled assembly. */
export interface SimulatedTest {
  readonly readings: readonly Reading[]
  readonly answers: readonly Answer[]
  readonly order: readonly string[]
}

const PERIOD_S = 0.1
const REST_S = 20
/** How long a tester waits for something to open before he takes it that it does not. */
const OPENING_S = 240
/** A reading that falls by more than this does not hold, kPa. */
const HOLDS_WITHIN_KPA = 1.5
/** Water that passes a shut shutoff, kg/s, from which on it is seen to leak. */
const SEEN_LEAK_KG_S = 1e-3

/** Carries a test procedure out on a modelled assembly, step by step as it is written. */
export function runTest(procedure: Procedure, site: SiteModel, tester: Tester = {}): SimulatedTest {
  const bench = new Bench(site, tester)
  const readings: Reading[] = []
  const answers: Answer[] = []
  const order: string[] = []
  for (const step of procedure.steps) {
    const before = bench.rest(1)
    bench.carryOut(step)
    const { record } = step
    if (!record) continue
    order.push(record.item)
    if (record.ask === 'answer') answers.push(bench.answer(record, before))
    else readings.push(bench.read(record))
  }
  return { readings, answers, order }
}

/** A site with a tester’s hands and eyes. */
class Bench {
  private readonly response: GaugeResponse | null
  private readonly period: number
  private trace: number[] = []

  constructor(
    private readonly site: SiteModel,
    tester: Tester,
  ) {
    this.period = tester.periodS ?? PERIOD_S
    this.response = tester.random
      ? new GaugeResponse(tester.gauge ?? fineGauge, tester.random, site.differential())
      : null
  }

  private sample(): number {
    const { site, period, response } = this
    site.advance(period)
    const differential = site.differential()
    const shown = response
      ? response.sample(period, differential, site.bled('high') + site.bled('low'))
      : differential
    this.trace.push(shown)
    return shown
  }

  /** Waits; what the gauge shows at the end. */
  rest(seconds: number): number {
    let shown = 0
    for (let n = 0; n < Math.max(1, Math.round(seconds / this.period)); n++) shown = this.sample()
    return shown
  }

  carryOut(step: ProcedureStep): void {
    for (const action of actionsOf(step)) {
      if (action.kind === 'hose') {
        this.site.connect(action.hose, action.port)
        if (action.port) this.response?.refilled()
        continue
      }
      this.trace = []
      this.site.move(action.element, action.to)
      this.rest(action.lastsS)
    }
  }

  answer(record: StepRecord, before: number): Answer {
    const options = record.answers ?? []
    const good = this.observe(record.observe as Observation, before)
    const chosen = good ? options[0] : options.at(-1)
    return { item: record.item, answer: chosen?.id ?? '', label: chosen?.label ?? '' }
  }

  private observe(what: Observation, before: number): boolean {
    const { site } = this
    const shown = this.rest(REST_S)
    const seen = site.seen()
    const reliefRuns = seen.running.some((id) => id.endsWith('relief'))
    switch (what) {
      case 'relief-dry':
        return !reliefRuns
      case 'shutoff-tight':
        return site.layout.elements
          .filter((e) => e.role === 'shutoff' && e.id.endsWith('shutoff-2'))
          .every((e) => site.opening(e.id) !== 'shut' || Math.abs(site.flow(e.id)) < SEEN_LEAK_KG_S)
      case 'reading-holds':
        return !reliefRuns && shown > before - HOLDS_WITHIN_KPA
      case 'opens-fully':
        return seen.wideOpen.includes('air-inlet')
      case 'meter-turns':
        return seen.turning.length > 0
    }
  }

  read(record: StepRecord): Reading {
    const kpa = record.read === 'plateau' ? this.readRest() : this.readOpening(record)
    const dimension = record.dimension ?? 'differential'
    const unit = record.unit ?? 'kPa'
    const digits = unitDefinition(dimension, unit).digits
    const value = convertValue(dimension, Math.max(kpa, 0), 'kPa', unit)
    return {
      item: record.item,
      dimension,
      value: roundTo(value, digits + 1),
      unit,
      ...(record.head ? { gaugeAbovePortM: this.site.gaugeAbovePortM } : {}),
    }
  }

  private source() {
    const { resolutionKpa } = fineGauge
    return { periodS: this.period, resolution: this.response ? resolutionKpa : 1e-6 }
  }

  /** Waits until the needle rests; one that creeps on for ever is read after a minute. */
  private readRest(): number {
    for (let tries = 0; tries < 3; tries++) {
      const last = this.rest(REST_S)
      const picked = this.response
        ? pickPlateau(Float64Array.from(this.trace), this.source())
        : null
      if (picked) return picked.value
      if (!this.response && tries === 2) return last
    }
    return this.trace.at(-1) as number
  }

  private readOpening(record: StepRecord): number {
    const ids = this.site.layout.elements
      .filter((e) => e.role === 'relief' || e.role === 'air-inlet')
      .filter((e) => (e.line === 'bypass') === record.item.startsWith('bypass-'))
      .map((e) => e.id)
    const open = () => {
      const { running, lifted } = this.site.seen()
      return ids.some((id) => running.includes(id) || lifted.includes(id))
    }
    const deadline = this.site.time + OPENING_S
    let before = this.trace.at(-1) ?? this.sample()
    while (!open()) {
      if (this.site.time > deadline) return 0
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
