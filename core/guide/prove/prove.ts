import type { Fault } from './rule'
import { expandGuide } from '../schema/expand'
import type { PlacedStep } from '../schema/step'
import { endsWork, ofJobs, widenedBy, withBrought } from '../run/run'
import { type Choosing, choicesAt, mostFindings, waysThrough } from './choices'
import { combinationsOf } from './combinations'
import { nameFaults, shapeFaults } from './names'
import { tieFaults } from './ties'
import { endFaults } from './ends'
import { takeStep } from './rules'
import { branchOf, type ProofState, startState } from './state'
import { conditionsOf, guideStations, isMet } from '../schema/stepCommon'
import { type Guide, guideAsBuilt, type SubGuide, variantOf } from '../schema/guide'

export interface Proof {
  readonly faults: readonly Fault[]
  /** Ways through the guide that were walked: variants times findings. */
  readonly paths: number
}

const ALL_WAYS = 500

/** How far a guide is walked. */
export interface Thoroughness {
  /**
   * So many combinations of findings are walked all; of more every pair of findings is, the others being
   * the first of theirs, and all of them alike.
   */
  readonly allWays?: number | undefined
  /** A fault after which no further way is walked, for whoever asks about that alone. */
  readonly until?: ((fault: Fault) => boolean) | undefined
}

/**
 * Walks every way through a guide, each variant with each combination of findings, and holds what is
 * done against what the equipment is: nothing forgotten, nothing opened under pressure, nothing left
 * in. Static: no model’s numbers are needed.
 *
 */
export function proveGuide(
  guide: Guide,
  subGuides: readonly SubGuide[],
  { allWays = ALL_WAYS, until = () => false }: Thoroughness = {},
): Proof {
  const expanded = expandGuide(guide, subGuides)
  const faults = new Collector(until)
  for (const f of expanded.faults) faults.add({ ...f, step: '', rule: 'sub-guide' })
  for (const f of nameFaults(guide, expanded.steps)) faults.add(f)
  for (const f of shapeFaults(guide, expanded.steps)) faults.add(f)
  for (const f of tieFaults(guide, expanded.steps)) faults.add(f)
  for (const f of reachFaults(guide, expanded.steps)) faults.add(f)
  // Names that point nowhere make every further sentence doubtful.
  if (faults.list.length > 0) return { faults: faults.list, paths: 0 }

  const walker = new Walker(guide, expanded.steps, faults, allWays)
  for (const variant of guide.variants)
    for (const jobs of combinationsOf(guide.jobs?.map((j) => j.id) ?? []))
      walker.walk(variant.id, withBrought(guide, jobs))
  for (const item of faults.done ? [] : (guide.kit ?? [])) {
    const most = walker.mostUsed.get(item.id) ?? 0
    if (most > 0 && most < item.count)
      faults.add({
        step: '',
        path: 'kit',
        rule: 'kit-surplus',
        message: `the kit has ${item.count} × ${item.title}, and no way uses more than ${most}: correct the count`,
      })
    if (most === 0) {
      faults.add({
        step: '',
        path: 'kit',
        rule: 'kit-unused',
        message: `“${item.title}” is in the kit and goes nowhere: renew something from it, or take it off the list`,
      })
    }
  }
  return { faults: faults.list, paths: walker.paths }
}

/** Faults once each, however many paths meet them. */
class Collector {
  readonly list: Fault[] = []
  /** What was asked about is found. */
  done = false
  private readonly seen = new Set<string>()
  constructor(private readonly until: (fault: Fault) => boolean) {}

  add(fault: Fault): void {
    const key = `${fault.rule}|${fault.path}|${fault.message}`
    if (this.seen.has(key)) return
    this.seen.add(key)
    this.list.push(fault)
    this.done ||= this.until(fault)
  }
}

class Walker {
  paths = 0
  /** Of each item of the kit the most that one way uses. */
  readonly mostUsed = new Map<string, number>()
  private readonly powered: boolean
  /** The guide as the variant that is walked is built. */
  private built: Guide

  constructor(
    private readonly guide: Guide,
    private readonly steps: readonly PlacedStep[],
    private readonly faults: Collector,
    private readonly allWays: number,
  ) {
    this.powered = steps.some((s) => s.power !== undefined)
    this.built = guide
  }

  walk(variant: string, jobs: ReadonlySet<string>): void {
    this.built = guideAsBuilt(this.guide, variant)
    const steps = this.flat(this.steps, variant)
    const walk = (choosing: Choosing) =>
      this.follow(steps, 0, this.startOf(variant, jobs), choosing)
    if (waysThrough(steps) <= this.allWays) return walk({ usual: 0, mayDiffer: Infinity })
    walk({ usual: 0, mayDiffer: 2 })
    for (let usual = 1; usual < mostFindings(steps); usual++) walk({ usual, mayDiffer: 0 })
  }

  private startOf(variant: string, jobs: ReadonlySet<string>): ProofState {
    return startState(this.powered, variantOf(this.guide, variant), jobs)
  }

  /** Steps of a variant; a repeat is walked twice, since it must be able to go round. */
  private flat(steps: readonly PlacedStep[], variant: string): PlacedStep[] {
    return steps
      .filter((s) => !s.only || s.only.includes(variant))
      .flatMap((s) => {
        if (!s.steps) return [s]
        const inner = this.flat(s.steps, variant)
        return [...inner, ...inner]
      })
  }

  private follow(
    steps: readonly PlacedStep[],
    from: number,
    state: ProofState,
    choosing: Choosing,
  ): void {
    for (let n = from; n < steps.length; n++) {
      if (this.faults.done) return
      const step = steps[n] as PlacedStep
      if (!applies(step, state)) continue
      const stationFault = this.outOfOrder(steps, n)
      if (stationFault) this.faults.add(stationFault)
      takeStep(this.built, step, state, (rule, message) =>
        this.faults.add({ step: step.id, path: step.path, rule, message }),
      )
      const asked = step.inspect ?? step.ask
      if (!asked) continue
      const choices = choicesAt(step, choosing)
      const goOn = choices.filter(({ id }) => !endsWork(id))
      this.paths += choices.length - goOn.length
      for (const [way, { id, then }] of goOn.entries()) {
        // Whoever goes last has the state for himself.
        const branch = way < goOn.length - 1 ? branchOf(state) : state
        branch.inspected.set(asked, id)
        for (const job of widenedBy(this.guide, step, id)) branch.jobs.add(job)
        this.follow(steps, n + 1, branch, then)
      }
      return
    }
    this.paths++
    for (const [item, used] of state.used)
      this.mostUsed.set(item, Math.max(used, this.mostUsed.get(item) ?? 0))
    const last = steps.at(-1)
    endFaults(this.built, state, (rule, message) =>
      this.faults.add({ step: last?.id ?? '', path: last?.path ?? 'steps', rule, message }),
    )
  }

  private outOfOrder(steps: readonly PlacedStep[], n: number): Fault | null {
    const step = steps[n] as PlacedStep
    const before = steps[n - 1]
    if (!before || guideStations.indexOf(before.at) <= guideStations.indexOf(step.at)) return null
    return {
      step: step.id,
      path: step.path,
      rule: 'station-order',
      message: `is at ${step.at}, after a step at ${before.at}: stations are never reordered`,
    }
  }
}

const applies = (step: PlacedStep, state: ProofState): boolean =>
  ofJobs(step, state.jobs) && isMet(step, state.inspected)

/** Conditions on findings that no inspection can give, and variants that do nothing. */
function reachFaults(guide: Guide, steps: readonly PlacedStep[]): Fault[] {
  const faults: Fault[] = []
  const verdicts = new Map<string, Set<string>>()
  const collect = (s: PlacedStep) => {
    const asked = s.inspect ?? s.ask
    if (asked) {
      const known = verdicts.get(asked) ?? new Set<string>()
      for (const v of s.verdicts ?? s.answers ?? []) known.add(v.id)
      verdicts.set(asked, known)
    }
    s.steps?.forEach(collect)
  }
  const look = (s: PlacedStep) => {
    for (const [part, wanted] of conditionsOf(s)) {
      const missing = wanted.filter((w) => !verdicts.get(part)?.has(w))
      if (missing.length > 0) {
        faults.push({
          step: s.id,
          path: s.path,
          rule: 'never-reached',
          message: `waits for the finding ${part}: ${missing.join(', ')}, which no inspection before it gives`,
        })
      }
    }
    s.steps?.forEach(look)
  }
  // What is found inside a repeat counts when it is gone round again.
  for (const step of steps) {
    if (step.steps) collect(step)
    look(step)
    collect(step)
  }
  for (const v of guide.variants) {
    if (!steps.some((s) => !s.only || s.only.includes(v.id))) {
      faults.push({
        step: '',
        path: 'variants',
        rule: 'empty-variant',
        message: `variant “${v.id}” has no step`,
      })
    }
  }
  return faults
}
