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
import type { Outcome } from './outcome'
import type { RulePack } from './pack'
import { tellingDigits } from './plausible'
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
  const items = test.items.map((item) => ({
    ...judgeItem(pack, item, run, blocked.get(item.id)),
    ...wantedAnswers(plan, item),
  }))
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

/** The answers that an item accepts, as the tester reads them. */
function wantedAnswers({ procedure }: PrescribedTest, item: PackItem): { wanted?: string } {
  if (item.basis !== 'answer') return {}
  const asked = procedure.steps.find((s) => s.record?.item === item.id)?.record?.answers ?? []
  const labels = asked.filter((a) => item.accept.includes(a.id)).map((a) => a.label)
  return labels.length > 0 ? { wanted: labels.join(' or ') } : {}
}

function judgeItem(pack: RulePack, item: PackItem, run: TestRun, blocked?: string): ItemJudgement {
  const base = { id: item.id, title: item.title, requirement: item.requirement }
  return item.basis === 'answer'
    ? { ...base, ...answer.judge(item, run, blocked) }
    : { ...base, ...judgeValue(pack, item, run, blocked) }
}

type Found = Omit<ItemJudgement, 'id' | 'title' | 'requirement'>
const notAssessed = (reason: string): Found => ({ outcome: 'not-assessed', reason })

function judgeValue(pack: RulePack, item: MeasuredItem, run: TestRun, blocked?: string): Found {
  const basis = basisOf(item)
  const measured = basis.measure(item, run)
  if ('missing' in measured) return notAssessed(measured.missing)
  const limit = basis.limit(item)
  if (limit && limit.dimension !== measured.dimension) {
    return notAssessed(blocked ?? 'it is of another quantity than its limit')
  }
  const ends = basis.ends(item, run, measured.unit)
  if ('missing' in ends) return notAssessed(blocked ?? ends.missing)
  const near = nearestEnd(measured.value, ends)
  if (!near) return notAssessed('the pack has no limit for it')

  const { margin } = near
  const telling = (digits: number) => tellingDigits(measured.value, near.limit, digits)
  const worked = !basis.recorded || measured.perMinute
  const facts = {
    reading: worked ? roundTo(measured.value, telling(measured.digits)) : measured.text,
    unit: measured.unit,
    limit: roundTo(near.limit, telling(Math.max(measured.digits, ends.digits))),
    limitSense: near.sense,
    margin: roundTo(margin, telling(measured.digits)),
    dimension: measured.dimension,
    ...(measured.corrected ? { corrected: measured.corrected } : {}),
    ...(measured.heldS === undefined ? {} : { heldS: measured.heldS }),
    ...(measured.perMinute ? { perMinute: true } : {}),
  }
  const simple = simpleAcceptance(margin)
  const { standard } = measured
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
          tur: expanded > 0 ? Math.abs(near.limit) / expanded : Infinity,
          questioned:
            expanded > 0 && Math.abs(near.limit) / expanded < Number(pack.questionTurUnder),
        }
      : {}),
  }
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
