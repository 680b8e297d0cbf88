import type { FieldFault } from '../../schema'
import { type GuideStep, type PlacedStep, placedStep } from './step'
import type { GuideStation } from './stepCommon'
import type { Guide, SubGuide } from './guide'

const DEEPEST = 3

/** A guide written out, and what is wrong with how it includes others. */
interface Expanded {
  readonly steps: readonly PlacedStep[]
  readonly faults: readonly FieldFault[]
}
const known = new WeakMap<Guide, WeakMap<readonly SubGuide[], Expanded>>()

/**
 * Writes a guide’s sub-guides out and gives every step its place. A step without a station is at
 * the one of the step before it. Neither is ever changed in place: it is done once for both, and not at every press.
 */
export function expandGuide(guide: Guide, subGuides: readonly SubGuide[]): Expanded {
  const ofGuide = known.get(guide) ?? new WeakMap<readonly SubGuide[], Expanded>()
  known.set(guide, ofGuide)
  const expanded = ofGuide.get(subGuides) ?? writtenOut(guide, subGuides)
  ofGuide.set(subGuides, expanded)
  return expanded
}

function writtenOut(guide: Guide, subGuides: readonly SubGuide[]): Expanded {
  const faults: FieldFault[] = []
  let station: GuideStation = 'prepare'

  function place(
    steps: readonly GuideStep[],
    prefix: string,
    path: string,
    chain: readonly string[],
  ): PlacedStep[] {
    return steps.flatMap((step, index) => {
      const here = `${path}[${index}]`
      const id = `${prefix}${index + 1}`
      station = step.at ?? station
      if (step.include && step.each) {
        return step.each.flatMap((parameters, n) =>
          includeSteps({ ...step, parameters }, `${id}.${n + 1}`, here, chain),
        )
      }
      if (step.include) return includeSteps(step, id, here, chain)
      const inner = step.repeat && place(step.repeat, `${id}.`, `${here}.repeat`, chain)
      return [placedStep(step, { id, at: station, path: here, ...(inner ? { steps: inner } : {}) })]
    })
  }

  function includeSteps(
    step: GuideStep,
    id: string,
    path: string,
    chain: readonly string[],
  ): PlacedStep[] {
    const sub = subGuides.find((s) => s.id === step.include)
    const fault = (message: string) => {
      faults.push({ path, message })
      return []
    }
    if (!sub) return fault(`there is no sub-guide “${step.include}”: write it, or mend the name`)
    if (chain.includes(sub.id) || chain.length >= DEEPEST) {
      return fault(`sub-guides go round in a circle: ${[...chain, sub.id].join(' → ')}`)
    }
    const given = step.parameters ?? {}
    for (const name of sub.parameters) {
      if (given[name] === undefined) fault(`“${sub.id}” wants a value for “${name}”`)
    }
    const filled = fill(sub.steps, given).map((s) => inherit(s, step))
    return place(filled, `${id}.`, path, [...chain, sub.id]).map((s) => ({
      ...s,
      path,
      within: s.within ?? id,
    }))
  }

  return { steps: place(guide.steps, '', 'steps', []), faults }
}

/** What the including step says of itself holds for all of its steps. */
function inherit(inner: GuideStep, outer: GuideStep): GuideStep {
  return {
    ...inner,
    ...(outer.only ? { only: outer.only } : {}),
    ...(outer.when ? { when: { ...inner.when, ...outer.when } } : {}),
    ...(outer.jobs ? { jobs: outer.jobs } : {}),
    ...(outer.without ? { without: outer.without } : {}),
    ...(outer.differs && !inner.differs ? { differs: outer.differs } : {}),
  }
}

/** Steps in their order, the difference of a sub-guide’s second turn said at the first step of it only. */
export function differenceOnce(steps: readonly PlacedStep[]): PlacedStep[] {
  const said = new Set<string>()
  return steps.map((step) => {
    const key = `${step.within}|${step.differs}`
    if (!step.differs || !step.within || !said.has(key)) {
      said.add(key)
      return step
    }
    const { differs: _, ...rest } = step
    return rest
  })
}

/** Puts the values in the place of `{name}` wherever it stands. */
function fill<T>(value: T, given: Readonly<Record<string, string>>): T {
  if (typeof value === 'string') {
    return value.replace(/\{([a-z0-9-]+)\}/g, (whole, name: string) => given[name] ?? whole) as T
  }
  if (Array.isArray(value)) return value.map((v: unknown) => fill(v, given)) as T
  if (value && typeof value === 'object') {
    return Object.fromEntries(
      Object.entries(value).map(([k, v]) => [fill(k, given), fill(v as unknown, given)]),
    ) as T
  }
  return value
}
