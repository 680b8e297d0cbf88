import type { DecisionRule, PackItem, PackTest, RulePack } from '../procedure'
import {
  type AnyQuantity,
  convertValue,
  displayedDigits,
  parseDisplayed,
  roundTo,
  unitDefinition,
  unitLabel,
} from '../quantity'
import {
  type Outcome,
  falseAcceptProbability,
  gravest,
  guardedAcceptance,
  simpleAcceptance,
  expandedOf,
} from './decision'
import { headCorrection } from './head'
import { type GaugeAccuracy, readingUncertainty } from './uncertainty'
import type { ItemJudgement, Judgement, Reading, TestRun } from './types'

/**
 * Judges one run of a field test against the rule pack: every item with its limit, margin,
 * uncertainty and both decision rules, then the whole. What is missing, impossible or
 * contradictory is not assessed, with the reason, and never passes.
 */
export function judgeTest(pack: RulePack, test: PackTest, run: TestRun): Judgement {
  const blocked = blockedItems(test, run)
  const items = test.items.map((item) => judgeItem(pack, item, run, blocked.get(item.id)))
  const deciding = items.filter((i) => i.requirement === 'required')
  const outcome = gravest(deciding.map((i) => i.outcome))
  return {
    outcome,
    reason: reasonOf(outcome, items),
    decisionRule: pack.decisionRule,
    rulePack: { id: pack.id, version: pack.version, title: pack.title },
    items,
  }
}

/** Items that cannot be assessed whatever they read, with the reason. */
function blockedItems(test: PackTest, run: TestRun): Map<string, string> {
  const blocked = new Map<string, string>()
  const block = (id: string, why: string) => {
    if (!blocked.has(id)) blocked.set(id, why)
  }
  if (run.gaugeRefusal) for (const item of test.items) block(item.id, run.gaugeRefusal)
  for (const reading of run.readings) {
    if (run.notBefore && reading.takenAt && reading.takenAt < run.notBefore) {
      block(
        reading.item,
        'it is stamped earlier than the repair: take it again, or correct the time',
      )
    }
  }
  for (const c of test.contradictions ?? []) {
    const a = find(run.readings, c.item)
    const b = find(run.readings, c.mayNotExceed)
    if (a && b && inSi(a) > inSi(b) + doubtKpa(a, b, run.gauge)) {
      block(c.item, c.says)
      block(c.mayNotExceed, c.says)
    }
  }
  for (const item of test.items) {
    const answer = run.answers.find((a) => a.item === item.id)?.answer
    if (answer && item.accept && !item.accept.includes(answer)) {
      for (const id of item.invalidates ?? []) {
        block(id, item.reason ?? `${item.title} disturbs this reading`)
      }
    }
    for (const earlier of item.after ?? []) {
      const mine = run.order.indexOf(item.id)
      const theirs = run.order.indexOf(earlier)
      if (mine >= 0 && theirs > mine) {
        block(
          earlier,
          `it was taken after ${item.title.toLowerCase()}, which disturbs it: take it again`,
        )
      }
    }
  }
  return blocked
}

/** Two readings contradict each other only beyond what they are sure to, kPa. */
function doubtKpa(a: Reading, b: Reading, gauge: GaugeAccuracy | undefined): number {
  const [ua, ub] = [a, b].map((r) => {
    const digit = 10 ** -displayedDigits(r.value)
    const standard = measure(r, gauge).standard
    const doubt = standard === undefined ? digit : expandedOf(standard)
    return convertValue(r.dimension, doubt, r.unit, 'kPa')
  })
  return Math.hypot(ua ?? 0, ub ?? 0)
}

function judgeItem(pack: RulePack, item: PackItem, run: TestRun, blocked?: string): ItemJudgement {
  const base = { id: item.id, title: item.title, requirement: item.requirement }
  if (item.basis === 'answer') return { ...base, ...judgeAnswer(item, run, blocked) }

  const measured = item.basis === 'limit' ? direct(item, run) : difference(item, run)
  if ('missing' in measured) {
    return { ...base, outcome: 'not-assessed', reason: blocked ?? measured.missing }
  }
  const limit = (item.atLeast ?? item.atMost) as NonNullable<PackItem['atLeast']>
  const limitValue = convertValue(
    limit.dimension,
    parseDisplayed(limit.value),
    limit.unit,
    measured.unit,
  )
  const margin = item.atLeast ? measured.value - limitValue : limitValue - measured.value
  const facts = {
    ...base,
    reading: measured.text,
    unit: measured.unit,
    limit: roundTo(limitValue, Math.max(measured.digits, limitDigits(limit, measured.unit))),
    limitSense: item.atLeast ? ('at least' as const) : ('at most' as const),
    margin: roundTo(margin, measured.digits),
    dimension: limit.dimension,
    ...(measured.corrected ? { corrected: measured.corrected } : {}),
  }
  const simple = simpleAcceptance(margin)
  const standard = measured.standard
  const expanded = standard === undefined ? undefined : expandedOf(standard)
  const guarded = expanded === undefined ? undefined : guardedAcceptance(margin, expanded)
  const outcome = blocked ? 'not-assessed' : decided(pack.decisionRule, simple, guarded)
  return {
    ...facts,
    outcome,
    reason: blocked ?? limitReason(facts, outcome, expanded),
    simple,
    ...(guarded !== undefined && expanded !== undefined && standard !== undefined
      ? {
          guarded,
          expanded: roundTo(expanded, measured.digits + 1),
          falseAccept: falseAcceptProbability(margin, standard),
          tur: expanded > 0 ? Math.abs(limitValue) / expanded : Infinity,
          questioned:
            expanded > 0 && Math.abs(limitValue) / expanded < Number(pack.questionTurUnder),
        }
      : {}),
  }
}

function decided(rule: DecisionRule, simple: Outcome, guarded: Outcome | undefined): Outcome {
  if (rule === 'simple') return simple
  return guarded ?? 'not-assessed'
}

/** A limit keeps its printed digits in its own unit and takes those usual elsewhere. */
function limitDigits(limit: AnyQuantity, shownIn: string): number {
  if (limit.unit === shownIn) return displayedDigits(limit.value)
  return unitDefinition(limit.dimension, shownIn).digits
}

function judgeAnswer(item: PackItem, run: TestRun, blocked?: string) {
  const given = run.answers.find((a) => a.item === item.id)
  if (!given) {
    return { outcome: 'not-assessed' as const, reason: blocked ?? `not recorded yet` }
  }
  const accepted = item.accept?.includes(given.answer) ?? false
  const outcome: Outcome = blocked ? 'not-assessed' : accepted ? 'pass' : 'fail'
  return {
    outcome,
    answer: given.label,
    reason: blocked ?? (accepted ? given.label : (item.reason ?? given.label)),
  }
}

interface Measured {
  readonly value: number
  readonly text: string
  readonly unit: string
  readonly digits: number
  readonly standard?: number
  readonly corrected?: string
}

function direct(item: PackItem, run: TestRun): Measured | { missing: string } {
  const reading = find(run.readings, item.id)
  if (!reading) return { missing: 'not recorded yet' }
  return measure(reading, run.gauge)
}

function measure(reading: Reading, gauge: GaugeAccuracy | undefined): Measured {
  const { dimension, unit } = reading
  const shown = parseDisplayed(reading.value)
  const head = headCorrection(reading)
  const digits = displayedDigits(reading.value)
  const parts =
    gauge &&
    readingUncertainty(
      dimension,
      reading.value,
      unit,
      gauge,
      head.halfWidth,
      reading.deviation ?? 0,
    )
  const value = shown + head.add
  return {
    value,
    text: reading.value,
    unit,
    digits: Math.max(digits, unitDefinition(dimension, unit).digits),
    ...(parts ? { standard: parts.combined } : {}),
    ...(head.add !== 0 ? { corrected: roundTo(value, digits + 1) } : {}),
  }
}

/** Two readings of one gauge, taken as independent, which can only widen the uncertainty. */
function difference(item: PackItem, run: TestRun): Measured | { missing: string } {
  const minuend = find(run.readings, item.minuend ?? '')
  const subtrahend = find(run.readings, item.subtrahend ?? '')
  if (!minuend || !subtrahend) return { missing: 'needs both readings' }
  const a = measure(minuend, run.gauge)
  const b = measure(subtrahend, run.gauge)
  const bValue = convertValue(subtrahend.dimension, b.value, b.unit, a.unit)
  const digits = Math.max(a.digits, a.unit === b.unit ? b.digits : 0)
  const value = a.value - bValue
  const standards =
    a.standard !== undefined && b.standard !== undefined
      ? {
          standard: Math.hypot(
            a.standard,
            convertValue(subtrahend.dimension, b.standard, b.unit, a.unit),
          ),
        }
      : {}
  return { value, text: roundTo(value, digits), unit: a.unit, digits, ...standards }
}

function limitReason(
  item: Pick<
    ItemJudgement,
    'reading' | 'unit' | 'limit' | 'limitSense' | 'margin' | 'dimension' | 'corrected'
  >,
  outcome: Outcome,
  expanded: number | undefined,
): string {
  const unit = unitLabel(item.dimension ?? 'differential', item.unit ?? '')
  const read = item.corrected
    ? `${item.corrected} (shown ${item.reading}, head corrected)`
    : item.reading
  const margin = Math.abs(Number(item.margin))
  const near = item.limitSense === 'at least' ? 'under' : 'over'
  switch (outcome) {
    case 'not-assessed':
      return 'guarded acceptance needs a gauge of known accuracy: choose the gauge'
    case 'pass':
      return `${read} ${unit}, ${item.limitSense} ${item.limit} is wanted: ${margin} to spare`
    case 'pass-uncertain':
      return `${read} ${unit} meets ${item.limit}, but the margin is less than the uncertainty of ${roundTo(expanded ?? 0, 2)} ${unit}`
    default:
      return `${read} ${unit} is ${margin} ${near} the limit of ${item.limit} ${unit}`
  }
}

function reasonOf(outcome: Outcome, items: readonly ItemJudgement[]): string {
  const required = items.filter((i) => i.requirement === 'required')
  const fault = required.find((i) => i.outcome === outcome)
  const advisory = items.filter((i) => i.requirement === 'advisory' && i.outcome.startsWith('fail'))
  const note =
    advisory.length > 0
      ? ` Advisory: ${advisory.map((i) => `${lower(i.title)} – ${i.reason}`).join('; ')}.`
      : ''
  if (outcome === 'pass') return `Every required item meets its limit.${note}`
  const more = required.filter((i) => i.outcome === outcome).length - 1
  const others = more > 0 ? ` (and ${more} more)` : ''
  return `${fault?.title ?? 'The test'}: ${fault?.reason ?? 'not recorded'}${others}.${note}`
}

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
const find = (readings: readonly Reading[], item: string) =>
  readings.findLast((r) => r.item === item)
const inSi = (r: Reading) => convertValue(r.dimension, parseDisplayed(r.value), r.unit, 'kPa')
