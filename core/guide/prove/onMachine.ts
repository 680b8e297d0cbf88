import { barsLeft, buildsOf, type Machine, type MachinePart, partsOf } from '../../machine'
import { endsWork, ofJobs, withBrought } from '../run/run'
import { combinationsOf } from './combinations'
import { standsFor } from '../schema/equipment'
import { expandGuide } from '../schema/expand'
import { isMet } from '../schema/stepCommon'
import type { Guide, SubGuide } from '../schema/guide'
import type { PlacedStep } from '../schema/step'
import type { Fault } from './rule'

/**
 * Holds a guide against the machine that it works on, in each of its variants: it knows every part that
 * comes free, takes nothing off from under something else, looks at nothing that cannot be seen, and
 * looks at every soft part that it takes off.
 */
export function proveOnMachine(
  guide: Guide,
  subGuides: readonly SubGuide[],
  machine: Machine,
): Fault[] {
  const named = namesFaults(guide, machine)
  if (named.length > 0) return named
  const { steps } = expandGuide(guide, subGuides)
  const seen = new Set<string>()
  return guide.variants
    .flatMap((variant) => {
      const parts = partsOf(machine, variant.options ?? buildsOf(machine)[0] ?? [])
      return combinationsOf(guide.jobs?.map((j) => j.id) ?? []).flatMap((jobs) => {
        const inHand = flat(steps, variant.id, withBrought(guide, jobs))
        return waysThrough(inHand).flatMap((way) => variantFaults(guide, way, parts))
      })
    })
    .filter(({ rule, message }) => {
      const key = `${rule} ${message}`
      const fresh = !seen.has(key)
      seen.add(key)
      return fresh
    })
}

function namesFaults(guide: Guide, machine: Machine): Fault[] {
  const known = new Set(machine.parts.map((p) => p.id))
  const options = new Set((machine.options ?? []).map((o) => o.id))
  const fault = (path: string, message: string): Fault => ({
    step: '',
    path,
    rule: 'not-of-the-machine',
    message,
  })
  return [
    ...guide.parts.flatMap((part, n) =>
      standsFor(part)
        .filter((name) => !known.has(name))
        .map((name) =>
          fault(
            `parts[${n}]`,
            `“${name}” is no part of ${machine.title}: say with “is” which of its parts “${part.title}” stands for`,
          ),
        ),
    ),
    ...guide.variants.flatMap((v, n) =>
      (v.options ?? [])
        .filter((o) => !options.has(o))
        .map((o) => fault(`variants[${n}].options`, `“${o}” is no option of ${machine.title}`)),
    ),
  ]
}

function flat(
  steps: readonly PlacedStep[],
  variant: string,
  jobs: ReadonlySet<string>,
): PlacedStep[] {
  return steps
    .filter((s) => (!s.only || s.only.includes(variant)) && ofJobs(s, jobs))
    .flatMap((s) => (s.steps ? flat(s.steps, variant, jobs) : [s]))
}

/**
 * The steps as they come when every inspection ends in its first verdict, every one in its second, and so
 * on: what comes off on a finding only is off on that way alone. Verdicts that end the work lead nowhere.
 */
function waysThrough(steps: readonly PlacedStep[]): PlacedStep[][] {
  const choices = (s: PlacedStep) =>
    (s.verdicts ?? s.answers ?? []).filter((v) => !endsWork(v.id)).map((v) => v.id)
  const most = Math.max(1, ...steps.map((s) => choices(s).length))
  const ways = Array.from({ length: most }, (_, n) => {
    const found = new Map<string, string>()
    return steps.filter((step) => {
      if (!isMet(step, found)) return false
      const ids = choices(step)
      const name = step.inspect ?? step.ask
      const chosen = ids[Math.min(n, ids.length - 1)]
      if (name && chosen) found.set(name, chosen)
      return true
    })
  })
  // Ways on which the same comes off, goes on and is looked at are one.
  return [...new Map(ways.map((way) => [way.map(effectOf).join(), way])).values()]
}

const effectOf = ({ remove, fit, renew, discard, inspect, loosen, tighten }: PlacedStep): string =>
  [remove, '+', fit, '?', inspect ?? discard ?? renew, loosen, tighten].join(' ')

function variantFaults(
  guide: Guide,
  steps: readonly PlacedStep[],
  parts: readonly MachinePart[],
): Fault[] {
  const faults: Fault[] = []
  const titleOf = (id: string) => parts.find((p) => p.id === id)?.title ?? id
  const own = (id: string | undefined) => {
    const part = guide.parts.find((p) => p.id === id)
    return part ? standsFor(part).filter((m) => parts.some((p) => p.id === m)) : []
  }
  const off = new Set<string>()
  const judged = new Set<string>()
  for (const step of steps) {
    const at = (rule: string, message: string) =>
      faults.push({ step: step.id, path: step.path, rule, message })
    // Of several parts that come off as one, none bars another.
    const taken = own(step.remove)
    for (const name of taken) {
      const bars = [...barsLeft(parts, name, new Set([...off, ...taken]))]
      if (bars.length > 0)
        at(
          'barred',
          `${titleOf(name)} cannot come off: ${bars.map(titleOf).join(', ')} must be off first`,
        )
    }
    for (const name of taken) off.add(name)
    if (step.loosen && parts.some((p) => p.id === step.loosen)) off.add(step.loosen)
    // Of what is looked at as one, the first is what is seen.
    for (const name of own(step.inspect).slice(0, 1)) {
      const part = parts.find((p) => p.id === name)
      const hidden = (part?.hidden ?? part?.behind ?? []).filter(
        (h) => parts.some((p) => p.id === h) && !off.has(h),
      )
      if (hidden.length > 0)
        at(
          'unseen',
          `${titleOf(name)} cannot be seen behind ${hidden.map(titleOf).join(', ')}: take that off first`,
        )
    }
    for (const name of own(step.inspect)) judged.add(name)
    // What goes in again hides what is behind it.
    for (const name of own(step.fit)) off.delete(name)
    if (step.tighten) off.delete(step.tighten)
  }
  const taken = new Set(steps.flatMap((s) => own(s.remove)))
  for (const { loosen } of steps) if (loosen) taken.add(loosen)
  const fasteners = guide.fasteners?.map((f) => f.id as string) ?? []
  const known = new Set([...guide.parts.flatMap(standsFor), ...fasteners])
  for (const part of parts) {
    if (!known.has(part.id) && comesFree(part, parts, taken))
      faults.push({
        step: '',
        path: 'parts',
        rule: 'forgotten',
        message: `${part.title} comes free with what is taken off, and no part of the guide stands for it`,
      })
    if (part.soft && taken.has(part.id) && !judged.has(part.id))
      faults.push({
        step: '',
        path: 'steps',
        rule: 'soft-unjudged',
        message: `${part.title} is soft and comes off: inspect it, so that its condition is on record though a new one goes in`,
      })
  }
  return faults
}

/** What is soft or loose, and nothing bars any more. */
function comesFree(
  part: MachinePart,
  parts: readonly MachinePart[],
  off: ReadonlySet<string>,
): boolean {
  if (!part.soft && !part.loose) return false
  const held = part.behind?.some((b) => parts.some((p) => p.id === b)) ?? false
  return held && barsLeft(parts, part.id, off).size === 0
}
