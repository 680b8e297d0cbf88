import {
  barsLeft,
  buildsOf,
  carriedBy,
  enteredBlind,
  type Machine,
  type MachinePart,
  partsOf,
  placeOf,
  waysOut,
} from '../../machine'
import { endsWork, ofJobs, widenedBy, withBrought } from '../run/run'
import { combinationsOf } from './combinations'
import { standsFor } from '../schema/equipment'
import { expandGuide } from '../schema/expand'
import { isMet } from '../schema/stepCommon'
import type { Guide, SubGuide } from '../schema/guide'
import type { PlacedStep } from '../schema/step'
import { Care } from './care'
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
      const met = rememberingMet(machine, parts)
      return combinationsOf(guide.jobs?.map((j) => j.id) ?? []).flatMap((jobs) => {
        const inHand = withBrought(guide, jobs)
        return waysThrough(guide, flat(steps, variant.id), inHand).flatMap((way) =>
          variantFaults(guide, way, machine, parts, met),
        )
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
    ...guide.parts.flatMap((part, n) => {
      const [own] = machine.parts.filter((p) => standsFor(part).includes(p.id))
      if (!own || own.kind === 'fastener') return []
      if (own.countSlot !== part.countSlot)
        return fault(
          `parts[${n}].countSlot`,
          `the number of ${own.title} ${own.countSlot ? `differs by build: give “countSlot: ${own.countSlot}”` : 'is known: give “count”, not a slot'}`,
        )
      if (own.countSlot || (own.count ?? 1) === (part.count ?? 1)) return []
      return fault(
        `parts[${n}].count`,
        `${machine.title} has ${own.count ?? 1} × ${own.title}, and “${part.title}” stands for ${part.count ?? 1}: count the places`,
      )
    }),
    ...guide.variants.flatMap((v, n) =>
      (v.options ?? [])
        .filter((o) => !options.has(o))
        .map((o) => fault(`variants[${n}].options`, `“${o}” is no option of ${machine.title}`)),
    ),
  ]
}

/** A step with the repeats that it stands in, whose jobs are its own. */
type Chain = readonly [step: PlacedStep, ...repeats: PlacedStep[]]

function flat(
  steps: readonly PlacedStep[],
  variant: string,
  repeats: readonly PlacedStep[] = [],
): Chain[] {
  return steps
    .filter((s) => !s.only || s.only.includes(variant))
    .flatMap((s): Chain[] =>
      s.steps ? flat(s.steps, variant, [s, ...repeats]) : [[s, ...repeats]],
    )
}

/**
 * The steps as they come when every inspection ends in its first verdict, every one in its second, and so
 * on: what comes off on a finding only is off on that way alone, and a finding that widens the job has its steps done
 * from there on. Verdicts that end the work lead nowhere.
 */
function waysThrough(
  guide: Guide,
  chains: readonly Chain[],
  jobs: ReadonlySet<string>,
): PlacedStep[][] {
  const choices = (s: PlacedStep) =>
    (s.verdicts ?? s.answers ?? []).filter((v) => !endsWork(v.id)).map((v) => v.id)
  const most = Math.max(1, ...chains.map(([s]) => choices(s).length))
  const ways = Array.from({ length: most }, (_, n) => {
    const found = new Map<string, string>()
    const inHand = new Set(jobs)
    return chains.flatMap((chain) => {
      const [step] = chain
      if (!chain.every((s) => ofJobs(s, inHand)) || !isMet(step, found)) return []
      const ids = choices(step)
      const name = step.inspect ?? step.ask
      const chosen = ids[Math.min(n, ids.length - 1)]
      if (name && chosen) found.set(name, chosen)
      if (chosen) for (const job of widenedBy(guide, step, chosen)) inHand.add(job)
      return [step]
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
  machine: Machine,
  parts: readonly MachinePart[],
  met: WhatIsMet,
): Fault[] {
  const faults: Fault[] = []
  const titleOf = (id: string) => parts.find((p) => p.id === id)?.title ?? id
  const own = (id: string | undefined) => {
    const part = guide.parts.find((p) => p.id === id)
    return part ? standsFor(part).filter((m) => parts.some((p) => p.id === m)) : []
  }
  const off = new Set<string>()
  /** Parts of the guide that are off. */
  const apart = new Set<string>()
  const judged = new Set<string>()
  const care = new Care(guide, machine, parts)
  for (const step of steps) {
    const at = (rule: string, message: string) =>
      faults.push({ step: step.id, path: step.path, rule, message })
    care.before(step, { parts, off }, at)
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
    if (step.remove) apart.add(step.remove)
    const moved = step.remove ?? step.fit ?? step.renew
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
    const put = step.fit ?? step.renew
    if (put) apart.delete(put)
    // What is put together on the bench is off as long as that is.
    const stillOff = new Set([...apart].flatMap(own))
    for (const name of own(put)) if (!stillOff.has(name)) off.delete(name)
    if (step.tighten) off.delete(step.tighten)
    care.after(step, { parts, off }, at)
    if (moved) {
      const { bars, blind } = met(own(moved), off)
      const name = titleOf(own(moved)[0] ?? '')
      if (bars.length > 0)
        at(
          'cannot-pass',
          `${name} does not pass ${bars.map(titleOf).join(' one way, nor ')}${bars.length > 1 ? ' the other way' : ''}: ${step.remove ? 'take off first what is in its way' : 'fit it earlier'}`,
        )
      if (blind.length > 0 && !step.remove)
        at(
          'blind',
          `${name} is pushed over ${blind.map(titleOf).join(', ')}, which breaks where it catches and is not seen then: fit ${name} first`,
        )
    }
  }
  care.atEnd((rule, message) => faults.push({ step: '', path: 'steps', rule, message }))
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

/** What a move of parts as one meets: what stands in its way, nothing where they pass; what is entered unseen. */
interface Met {
  readonly bars: readonly string[]
  readonly blind: readonly string[]
}
type WhatIsMet = (ids: readonly string[], off: ReadonlySet<string>) => Met

/** Ways through a guide have most of their steps in common: what was found for the same parts off is found again. */
function rememberingMet(machine: Machine, parts: readonly MachinePart[]): WhatIsMet {
  const found = new Map<string, Met>()
  return (ids, off) => {
    const key = `${ids.join()} of ${[...off].toSorted().join()}`
    const met = found.get(key) ?? whatIsMet(machine, parts, ids, off)
    found.set(key, met)
    return met
  }
}

/** By shape: of what stands in the way on each side, what passes least. */
function whatIsMet(
  machine: Machine,
  parts: readonly MachinePart[],
  ids: readonly string[],
  off: ReadonlySet<string>,
): Met {
  const others = new Set([...off].filter((name) => !ids.includes(name)))
  const moving = carriedBy(parts, ids, others)
  const place = placeOf(parts, ids[0] ?? '', others)
  const standing = parts.filter(
    (p) => !others.has(p.id) && !moving.includes(p) && placeOf(parts, p.id, others) === place,
  )
  const { up, down } = waysOut(machine, moving, standing)
  const [above, below] = [up, down].map((met) => met.toSorted((a, b) => b.by - a.by)[0]?.part)
  return {
    bars: above && below ? [...new Set([above, below])] : [],
    blind: enteredBlind(machine, moving, standing),
  }
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
