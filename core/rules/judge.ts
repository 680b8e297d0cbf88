import type { DecisionRule, PackItem, RulePack } from './pack'
import {
  type AnyQuantity,
  convertValue,
  displayedDigits,
  parseDisplayed,
  roundTo,
} from '../quantity'
import { blockedItems, type PrescribedTest } from './blocked'
import {
  type Outcome,
  falseAcceptProbability,
  gravest,
  guardedAcceptance,
  simpleAcceptance,
  expandedOf,
} from './decision'
import { measuredItem, standingAnswer } from './measure'
import { tellingDigits, usualDigits } from './plausible'
import { limitReason, reasonOf } from './sentences'
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

function judgeItem(pack: RulePack, item: PackItem, run: TestRun, blocked?: string): ItemJudgement {
  const base = { id: item.id, title: item.title, requirement: item.requirement }
  if (item.basis === 'answer') return { ...base, ...judgeAnswer(item, run, blocked) }
  const measured = measuredItem(item, run)
  const limit = item.atLeast ?? item.atMost
  if ('missing' in measured || !limit) {
    const missing = 'missing' in measured ? measured.missing : 'the pack has no limit for it'
    return { ...base, outcome: 'not-assessed', reason: missing }
  }
  if ('strange' in measured) {
    return { ...base, outcome: 'not-assessed', reason: blocked ?? measured.strange }
  }
  const limitValue = convertValue(
    limit.dimension,
    parseDisplayed(limit.value),
    limit.unit,
    measured.unit,
  )
  const margin = item.atLeast ? measured.value - limitValue : limitValue - measured.value
  const telling = (digits: number) => tellingDigits(measured.value, limitValue, digits)
  const facts = {
    ...base,
    reading:
      item.basis === 'difference'
        ? roundTo(measured.value, telling(measured.digits))
        : measured.text,
    unit: measured.unit,
    limit: roundTo(
      limitValue,
      telling(Math.max(measured.digits, limitDigits(limit, measured.unit))),
    ),
    limitSense: item.atLeast ? ('at least' as const) : ('at most' as const),
    margin: roundTo(margin, telling(measured.digits)),
    dimension: limit.dimension,
    ...(measured.corrected ? { corrected: measured.corrected } : {}),
  }
  const simple = simpleAcceptance(margin)
  const standard = measured.standard
  const expanded = standard === undefined ? undefined : expandedOf(standard)
  const guarded = expanded === undefined ? undefined : guardedAcceptance(margin, expanded)
  const outcome = blocked ? 'not-assessed' : decided(pack.decisionRule, simple, guarded)
  const sure = expanded === undefined ? undefined : { value: expanded, digits: measured.digits + 1 }
  return {
    ...facts,
    outcome,
    reason: blocked ?? limitReason(facts, outcome, sure),
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
  return usualDigits(limit.dimension, shownIn)
}

function judgeAnswer(item: PackItem, run: TestRun, blocked?: string) {
  const given = standingAnswer(run, item.id)
  if (!given) return { outcome: 'not-assessed' as const, reason: 'not recorded yet' }
  const accepted = item.accept?.includes(given.answer) ?? false
  const outcome: Outcome = blocked ? 'not-assessed' : accepted ? 'pass' : 'fail'
  return {
    outcome,
    answer: given.label,
    reason: blocked ?? (accepted ? given.label : (item.says ?? item.reason ?? given.label)),
  }
}
