import type { PlacedStep, PlacedVerb } from '../schema/step'

/** Verbs of the hands alone: what is thereby so can be seen, and nothing rests on how it turned out. */
const OF_THE_HANDS: ReadonlySet<PlacedVerb> = new Set([
  'do',
  'position',
  'isolate',
  'vent',
  'shut',
  'loosen',
  'remove',
  'discard',
  'clean',
  'lubricate',
  'treat',
  'tighten',
  'fit',
  'renew',
])

/**
 * Whether hands carry a step out in one go with what stands beside it: nothing is asked or judged in it, read, proved,
 * waited for, written down or set by a figure, no hazard warns of it, and no part has to be held a certain way round.
 */
export function isByHand(step: PlacedStep): boolean {
  // A sentence that asks something is answered by itself.
  if (!OF_THE_HANDS.has(step.verb) || step.say?.includes('?')) return false
  const { verify, hazard, orient, writes, locked, withAir, people, untilNoneMoves, to } = step
  const alone = verify ?? hazard ?? orient ?? writes ?? locked ?? withAir ?? people
  return !(alone ?? untilNoneMoves ?? to?.torque ?? to?.ceiling)
}

/**
 * The steps that hands do in one go around one of them: those before it as well, so that they stay in sight once they
 * are done. A step that differs from the first time begins anew, and so does a part that comes off to be judged.
 * @param steps of one station, in their order
 * @param due the step whose turn it is
 * @param joins what else a step has to fulfil to be among them
 * @returns empty where the step stands for itself
 */
export function handsTogether(
  steps: readonly PlacedStep[],
  due: PlacedStep,
  joins: (step: PlacedStep) => boolean = () => true,
): readonly PlacedStep[] {
  const goes = (step: PlacedStep | undefined, next: PlacedStep | undefined): boolean =>
    step !== undefined &&
    isByHand(step) &&
    joins(step) &&
    !(step.remove !== undefined && next?.inspect === step.remove)
  const at = steps.indexOf(due)
  if (!goes(due, steps[at + 1])) return []
  let [from, to] = [at, at]
  while (!steps[from]?.differs && goes(steps[from - 1], steps[from])) from--
  while (!steps[to + 1]?.differs && goes(steps[to + 1], steps[to + 2])) to++
  return from === to ? [] : steps.slice(from, to + 1)
}
