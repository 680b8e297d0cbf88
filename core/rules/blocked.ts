import { basisOf, type MeasuredItem, type PackItem, restsOn } from './basis'
import { channelFor } from './channel'
import type { PackTest } from './pack'
import type { Procedure, StepRecord } from '../procedure'
import {
  convertValue,
  dimensionTitles,
  parseDisplayed,
  roundTo,
  unitDefinition,
  unitLabel,
  valueToSi,
} from '../quantity'
import { expandedOf } from './decision'
import { measure, standingAnswer, standingReading } from './measure'
import { orderFaults } from './order'
import { impossible } from './plausible'
import { because, type Reason } from './reason'
import type { Reading, TestRun } from './types'

/** A field test as it is prescribed: what is recorded, and how it is judged. */
export interface PrescribedTest {
  readonly test: PackTest
  readonly procedure: Procedure
}

/**
 * Items that cannot be assessed whatever they read, with the reason: a gauge out of calibration, a
 * reading that is impossible, not at rest, of another quantity or stamped before the repair, two that
 * contradict each other, a wrong order, and what rests on any of these.
 */
export function blockedItems(
  { test, procedure }: PrescribedTest,
  run: TestRun,
): ReadonlyMap<string, Reason> {
  const blocked = new Map<string, Reason>()
  const block = (id: string, why: Reason | null | undefined) => {
    if (why && !blocked.has(id)) blocked.set(id, why)
  }
  for (const item of test.items) {
    const record = procedure.steps.find((s) => s.record?.item === item.id)?.record
    const reading = standingReading(run, item.id)
    block(item.id, reading?.refusal)
    if (reading) block(item.id, unfit(item, record, reading, run) ?? stale(run, reading))
    block(item.id, early(run, reading ?? standingAnswer(run, item.id)))
    block(item.id, strangeAnswer(record, standingAnswer(run, item.id)?.answer))
  }
  for (const item of test.items) {
    const why = invalidation(item, run)
    if (!why) continue
    for (const id of item.invalidates ?? []) {
      // What was seen to fail has failed, under whatever test conditions.
      if (!item.condition || !seenToFail(test, run, id)) block(id, why)
    }
  }
  for (const [id, why] of orderFaults(test, procedure, run)) {
    // What was seen to leak has leaked, whenever it was looked at.
    if (!seenToFail(test, run, id)) block(id, why)
  }
  // Last: a reading that has lost its meaning contradicts no other.
  for (const [id, why] of contradictions(test, run, blocked)) block(id, why)
  // A reading that was taken well may be used though its own limit is not known.
  const unfitReadings = new Map(blocked)
  for (const item of test.items) {
    for (const part of restsOn(item)) {
      const why = unfitReadings.get(part)
      if (why) {
        const text = `it rests on ${titleOf(test, part)}, which is not assessed: ${why.text}`
        block(item.id, because('rests-on-blocked', text, { item: part, because: why.code }))
      }
    }
  }
  return blocked
}

function seenToFail(test: PackTest, run: TestRun, id: string): boolean {
  const item = test.items.find((i) => i.id === id)
  const given = standingAnswer(run, id)?.answer
  return item?.basis === 'answer' && given !== undefined && !item.accept.includes(given)
}

const titleOf = (test: PackTest, id: string): string => {
  const title = test.items.find((i) => i.id === id)?.title ?? id
  return title.charAt(0).toLowerCase() + title.slice(1)
}

/** Why one reading cannot be judged, or null. */
function unfit(
  item: PackItem,
  record: StepRecord | undefined,
  reading: Reading,
  run: TestRun,
): Reason | null {
  const wanted = record?.dimension ?? limitOf(item)?.dimension
  if (wanted && wanted !== reading.dimension) {
    const text = `it is a ${dimensionTitles[reading.dimension]}, and a ${dimensionTitles[wanted]} is needed`
    return because('other-quantity', text, { is: reading.dimension, needed: wanted })
  }
  if (reading.gaugeAbovePortM && !record?.head) {
    return because(
      'height-not-applicable',
      'a height of the gauge is given, which counts only where a hose hangs open to air: leave it out',
    )
  }
  const doubt = impossible(reading, {
    channel: channelFor(run, reading),
    linePressure: run.linePressure,
  })
  if (doubt)
    return because('impossible', `${doubt.why}, which cannot be: take it again, or correct it`)
  return moving(item, record, reading, run)
}

/**
 * A needle that still moves is no reading; but one that falls and is under its limit already has
 * failed wherever it comes to rest.
 */
function moving(
  item: PackItem,
  record: StepRecord | undefined,
  reading: Reading,
  run: TestRun,
): Reason | null {
  const { creep } = record ?? {}
  const drift = reading.driftPerMinute
  if (!creep || drift === undefined) return null
  const { dimension, unit } = reading
  const most = convertValue(dimension, parseDisplayed(creep.value), creep.unit, unit)
  if (Math.abs(drift) <= most) return null
  const limit = item.basis === 'limit' ? item.atLeast : undefined
  const floor =
    limit && convertValue(limit.dimension, parseDisplayed(limit.value), limit.unit, unit)
  if (floor !== undefined && drift < 0 && measure(reading, channelFor(run, reading)).value < floor)
    return null
  const rate = roundTo(Math.abs(drift), unitDefinition(dimension, unit).digits + 1)
  const way = drift < 0 ? 'falls' : 'rises'
  const text = `the needle still ${way} by ${rate} ${unitLabel(dimension, unit)} a minute: wait until it rests and read again${drift < 0 ? '; one that goes on falling is a slow leak' : ''}`
  return because('still-moving', text, { perMinute: roundTo(drift, 6), unit })
}

/** The limit that a reading is held against itself. */
const limitOf = (item: PackItem) =>
  item.basis === 'answer' ? undefined : basisOf(item).limit(item)

function early(run: TestRun, entry: { readonly takenAt?: string } | undefined): Reason | null {
  return run.notBefore && entry?.takenAt && entry.takenAt < run.notBefore
    ? because(
        'before-repair',
        'it is stamped earlier than the repair: take it again, or correct the time',
      )
    : null
}

function stale(run: TestRun, reading: Reading): Reason | null {
  return run.adjustedAt && reading.takenAt && reading.takenAt < run.adjustedAt
    ? because('before-adjustment', 'it was read before the adjuster was turned: read it again')
    : null
}

function strangeAnswer(record: StepRecord | undefined, answer: string | undefined): Reason | null {
  if (answer === undefined || record?.answers?.some((a) => a.id === answer)) return null
  return because('unknown-answer', `“${answer}” is not an answer that this step knows`, { answer })
}

/** Pairs of readings of which one cannot exceed the other, whatever the gauge is sure to. */
function contradictions(
  test: PackTest,
  run: TestRun,
  blocked: ReadonlyMap<string, Reason>,
): [string, Reason][] {
  return (test.contradictions ?? []).flatMap((c): [string, Reason][] => {
    const a = standingReading(run, c.item)
    const b = standingReading(run, c.mayNotExceed)
    if (!a || !b || a.dimension !== b.dimension) return []
    if (blocked.has(c.item) || blocked.has(c.mayNotExceed)) return []
    const [high, low] = [inSi(a, run), inSi(b, run)]
    const against = c.orEqual ? high.value >= low.value : high.value > low.value
    if (!against) return []
    const params = { higher: c.item, lower: c.mayNotExceed }
    const reason = areAlike(high, low)
      ? because(
          'equal-within-uncertainty',
          `${c.says} (the two are equal within the uncertainty of the gauge)`,
          params,
        )
      : because('contradiction', c.says, params)
    return [
      [c.item, reason],
      [c.mayNotExceed, reason],
    ]
  })
}

interface Compared {
  readonly value: number
  readonly standard?: number
}

/** Whether two readings are the same as far as their instruments can tell. */
function areAlike(a: Compared, b: Compared): boolean {
  if (a.standard === undefined || b.standard === undefined) return a.value === b.value
  return Math.abs(a.value - b.value) <= expandedOf(Math.hypot(a.standard, b.standard))
}

function inSi(reading: Reading, run: TestRun): Compared {
  const { value, unit, standard } = measure(reading, channelFor(run, reading))
  const at = (v: number) => valueToSi(reading.dimension, v, unit)
  return {
    value: at(value),
    ...(standard === undefined ? {} : { standard: at(standard) - at(0) }),
  }
}

/** Why what an item invalidates loses its meaning; null while the item is as it should be. */
function invalidation(item: PackItem, run: TestRun): Reason | null {
  if (!item.invalidates) return null
  const lost = (text: string) => because('invalidated', text, { item: item.id })
  if (item.basis !== 'answer') {
    if (isOut(item, run)) return lost(item.reason ?? `${item.title} is out of its limits`)
    // A condition of the test that was not read is not known to have been kept.
    return item.condition && !standingReading(run, item.id)
      ? lost(`${item.title.toLowerCase()} is not recorded, on which the meaning of this depends`)
      : null
  }
  const answer = standingAnswer(run, item.id)?.answer
  if (answer === undefined) {
    return lost(`${item.title.toLowerCase()} is not recorded, on which the meaning of this depends`)
  }
  if (item.accept.includes(answer)) return null
  return lost(item.reason ?? `${item.title} disturbs this reading`)
}

/** Whether a value that can be judged lies beyond its ends. */
function isOut(item: MeasuredItem, run: TestRun): boolean {
  const basis = basisOf(item)
  const measured = basis.measure(item, run)
  if ('missing' in measured) return false
  const ends = basis.ends(item, run, measured.unit)
  if ('missing' in ends) return false
  const { low = -Infinity, high = Infinity } = ends
  return measured.value < low - ROUNDING || measured.value > high + ROUNDING
}

const ROUNDING = 1e-9
