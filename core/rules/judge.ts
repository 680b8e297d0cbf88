import { roundTo } from '../quantity'
import { basisOf, type MeasuredItem, type PackItem } from './basis'
import { answer } from './basis/answer'
import type { Ends } from './basis/basis'
import { blockedItems, type PrescribedTest } from './blocked'
import {
  type DecisionRule,
  falseAcceptProbability,
  gravest,
  guardedAcceptance,
  simpleAcceptance,
  expandedOf,
} from './decision'
import { type Outcome, passes } from './outcome'
import type { RulePack } from './pack'
import { tellingDigits } from './plausible'
import { because, type Reason, saying } from './reason'
import { advisoriesOut, limitReason, reasonOf } from './sentences'
import type { ItemJudgement, Judgement, TestRun } from './types'

/**
 * Judges one run of a field test against the rule pack: every item with its limit, margin,
 * uncertainty and both decision rules, then the whole. What is missing, impossible, contradictory or
 * out of order is not assessed, with the reason, and never passes.
 */
export function judgeTest(
  plan: PrescribedTest & { readonly pack: RulePack },
  run: TestRun,
): Judgement {
  const { pack, test } = plan
  const blocked = blockedItems(plan, run)
  const items = test.items.map((item) => ({
    ...judgeItem(pack, item, run, blocked.get(item.id)),
    ...wantedAnswers(plan, item),
  }))
  const deciding = items.filter((i) => i.requirement === 'required')
  const outcome = gravest(deciding.map((i) => i.outcome))
  return {
    outcome,
    reason: reasonOf(outcome, items),
    ...(passes(outcome) ? { advisoriesOut: advisoriesOut(items).length } : {}),
    decisionRule: pack.decisionRule,
    rulePack: { id: pack.id, version: pack.version, title: pack.title },
    items,
  }
}

/** The answers that an item accepts, as the tester reads them. */
function wantedAnswers({ procedure }: PrescribedTest, item: PackItem): { wanted?: string } {
  if (item.basis !== 'answer') return {}
  const asked = procedure.steps.find((s) => s.record?.item === item.id)?.record?.answers ?? []
  const labels = asked.filter((a) => item.accept.includes(a.id)).map((a) => a.label)
  return labels.length > 0 ? { wanted: labels.join(' or ') } : {}
}

function judgeItem(pack: RulePack, item: PackItem, run: TestRun, blocked?: Reason): ItemJudgement {
  const base = { id: item.id, title: item.title, requirement: item.requirement }
  return item.basis === 'answer'
    ? { ...base, ...answer.judge(item, run, blocked) }
    : { ...base, ...judgeValue(pack, item, run, blocked) }
}

type Found = Omit<ItemJudgement, 'id' | 'title' | 'requirement'>
const notAssessed = (reason: Reason): Found => ({ outcome: 'not-assessed', ...saying(reason) })

function judgeValue(pack: RulePack, item: MeasuredItem, run: TestRun, blocked?: Reason): Found {
  const basis = basisOf(item)
  const measured = basis.measure(item, run)
  if ('missing' in measured) {
    const isThere = measured.missing.code !== 'not-recorded'
    return notAssessed((isThere ? blocked : undefined) ?? measured.missing)
  }
  const limit = basis.limit(item)
  if (limit && limit.dimension !== measured.dimension) {
    return notAssessed(
      blocked ?? because('other-quantity', 'it is of another quantity than its limit'),
    )
  }
  const ends = basis.ends(item, run, measured.unit)
  if ('missing' in ends) return notAssessed(blocked ?? ends.missing)
  const near = nearestEnd(measured.value, ends)
  if (!near) return notAssessed(because('no-limit', 'the pack has no limit for it'))

  const { margin } = near
  const telling = (digits: number) => tellingDigits(measured.value, near.limit, digits)
  const worked = !basis.recorded || measured.perMinute
  const facts = {
    reading: worked ? roundTo(measured.value, telling(measured.digits)) : measured.text,
    unit: measured.unit,
    limit: roundTo(near.limit, telling(Math.max(measured.digits, ends.digits))),
    limitSense: near.sense,
    margin: roundTo(margin, telling(measured.digits)),
    ...bothEnds(ends, Math.max(measured.digits, ends.digits)),
    ...(ends.about ? { base: ends.about } : {}),
    ...(measured.counted ? { counted: true } : {}),
    dimension: measured.dimension,
    ...(measured.corrected ? { corrected: measured.corrected } : {}),
    ...(measured.heldS === undefined ? {} : { heldS: measured.heldS }),
    ...(measured.perMinute ? { perMinute: true } : {}),
  }
  const simple = simpleAcceptance(margin)
  const { standard } = measured
  const expanded = standard === undefined ? undefined : expandedOf(standard)
  const guarded = expanded === undefined ? undefined : guardedAcceptance(margin, expanded)
  const outcome = blocked
    ? 'not-assessed'
    : decided(item.decision ?? pack.decisionRule, simple, guarded)
  const accuracy =
    measured.counted || expanded === undefined || standard === undefined
      ? {}
      : accuracyOf(near, expanded, standard, Number(pack.questionTurUnder))
  const sure = expanded === undefined ? undefined : { value: expanded, digits: measured.digits + 1 }
  return {
    ...facts,
    outcome,
    ...saying(blocked ?? limitReason(facts, outcome, sure)),
    simple,
    ...(guarded === undefined ? {} : { guarded }),
    ...(expanded === undefined || measured.counted
      ? {}
      : { expanded: roundTo(expanded, measured.digits + 1) }),
    ...accuracy,
  }
}

/** Both ends, where a value has two: a reading is held against the nearer, and a reader wants to see both. */
function bothEnds({ low, high }: Ends, digits: number): Pick<ItemJudgement, 'limits'> {
  if (low === undefined || high === undefined) return {}
  return { limits: { low: roundTo(low, digits), high: roundTo(high, digits) } }
}

/** How sure a verdict is. Against a limit of zero there is no ratio of a limit to its uncertainty. */
function accuracyOf(
  { limit, margin }: { readonly limit: number; readonly margin: number },
  expanded: number,
  standard: number,
  questionUnder: number,
): Pick<ItemJudgement, 'falseAccept' | 'tur' | 'questioned'> {
  const falseAccept = falseAcceptProbability(margin, standard)
  if (limit === 0) return { falseAccept }
  const tur = expanded > 0 ? Math.abs(limit) / expanded : Infinity
  return { falseAccept, tur, questioned: tur < questionUnder }
}

/** The end that a value is nearest to missing, and by how much it is met. */
function nearestEnd(value: number, { low, high }: Ends) {
  const under =
    low === undefined ? undefined : { limit: low, sense: 'at least' as const, margin: value - low }
  const over =
    high === undefined
      ? undefined
      : { limit: high, sense: 'at most' as const, margin: high - value }
  if (!under || !over) return under ?? over
  return under.margin <= over.margin ? under : over
}

function decided(rule: DecisionRule, simple: Outcome, guarded: Outcome | undefined): Outcome {
  if (rule === 'simple') return simple
  return guarded ?? 'not-assessed'
}
