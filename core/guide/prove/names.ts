import { movesOf } from '../schema/moves'
import type { PlacedStep } from '../schema/step'
import { mendedBy } from '../run/renewal'
import { slotsOf } from '../run/run'
import { roundZones, shutFor, zoneSite } from '../../pressure'
import type { Fault } from './rule'
import { namesIn } from '../schema/step'
import { conditionsOf } from '../schema/stepCommon'
import type { NameList } from '../schema/verbs'
import type { Guide } from '../schema/guide'

/** Names in a guide that point nowhere, names twice, and steps without words. */
export function nameFaults(guide: Guide, steps: readonly PlacedStep[]): Fault[] {
  const faults: Fault[] = []
  const ids = (list: readonly { id: string }[] | undefined) =>
    new Set((list ?? []).map((e) => e.id))
  const known: Record<NameList, Set<string>> = {
    part: ids(guide.parts),
    zone: ids(guide.zones),
    kit: ids(guide.kit),
    slot: ids(guide.slots),
    spring: ids(guide.springs),
    adjustment: ids(guide.adjustments),
    fastener: ids(guide.fasteners),
    variant: ids(guide.variants),
    job: ids(guide.jobs),
  }
  const fault = (step: string, path: string, rule: string, message: string) =>
    faults.push({ step, path, rule, message })
  const need = (kind: NameList, name: string | undefined, step: string, path: string) => {
    if (name === undefined || known[kind].has(name)) return
    const list = [...known[kind]].join(', ') || 'none'
    fault(step, path, 'unknown-name', `there is no ${kind} “${name}”. Known: ${list}`)
  }

  for (const [name, list] of Object.entries({
    parts: guide.parts,
    kit: guide.kit,
    slots: guide.slots,
    zones: guide.zones,
    variants: guide.variants,
    jobs: guide.jobs,
  })) {
    const seen = new Set<string>()
    list?.forEach((e, n) => {
      if (seen.has(e.id))
        fault('', `${name}[${n}].id`, 'twice', `“${e.id}” stands twice in ${name}: rename one`)
      seen.add(e.id)
    })
  }
  guide.parts.forEach((p, n) => {
    const at = `parts[${n}]`
    for (const other of p.under ?? []) need('part', other, '', `${at}.under`)
    need('zone', p.closes, '', `${at}.closes`)
    need('spring', p.spring, '', `${at}.spring`)
    need('adjustment', p.disturbs, '', `${at}.disturbs`)
    need('slot', p.mass, '', `${at}.mass`)
    need('slot', p.rubberOf, '', `${at}.rubberOf`)
    need('slot', p.countSlot, '', `${at}.countSlot`)
    if (p.rubberOf && !guide.slots?.find((s) => s.id === p.rubberOf)?.rubbers)
      fault('', `${at}.rubberOf`, 'no-rubbers', `“${p.rubberOf}” names no rubbers: list them`)
    if (p.rubberOf && p.rubber)
      fault(
        '',
        `${at}.rubber`,
        'two-rubbers',
        `${p.title} has a rubber and a slot for it: keep one`,
      )
  })
  const valves = new Set<string>(
    (guide.zones ?? []).flatMap((z) => [...(z.shutBy ?? []), ...z.ventedBy]),
  )
  guide.variants.forEach((v, n) => {
    for (const valve of v.lacks ?? [])
      if (!valves.has(valve))
        fault(
          '',
          `variants[${n}].lacks`,
          'unknown-name',
          `no space is shut or vented by “${valve}”. Known: ${[...valves].join(', ')}`,
        )
    for (const step of steps.filter((s) => !s.only || s.only.includes(v.id)))
      for (const { element } of movesOf(step))
        if (v.lacks?.some((valve) => valve === element))
          fault(
            step.id,
            step.path,
            'not-built',
            `“${v.id}” has no “${element}”: give the step “only” with the variants that have it`,
          )
  })
  const round = roundZones(guide.zones ?? [])
  guide.zones?.forEach((z, n) => {
    for (const fed of z.feeds ?? []) need('zone', fed, '', `zones[${n}].feeds`)
    if (round.length === 0 && shutFor(zoneSite(guide.zones ?? []), z.id).length === 0)
      fault('', `zones[${n}]`, 'never-shut', `nothing shuts “${z.id}” off: give “shutBy”`)
  })
  const shut = new Set([
    ...steps.flatMap((s) => s.isolate ?? []),
    ...(guide.zones ?? []).flatMap((z) => z.shutBy ?? []),
  ])
  for (const [name, list] of Object.entries(guide.order ?? {}))
    for (const valve of list)
      if (!shut.has(valve))
        fault('', `order.${name}`, 'unknown-name', `no step shuts “${valve}”: mend the name`)
  for (const id of round)
    fault('', 'zones', 'fed-by-itself', `zone “${id}” feeds itself: take it out of “feeds”`)
  guide.fasteners?.forEach((f, n) => {
    need('part', f.holds, '', `fasteners[${n}].holds`)
    need('adjustment', f.locks, '', `fasteners[${n}].locks`)
  })

  const questions = new Set(steps.flatMap((s) => s.ask ?? []))
  guide.jobs?.forEach((j, n) => {
    for (const other of j.brings ?? []) need('job', other, '', `jobs[${n}].brings`)
  })
  guide.kit?.forEach((k, n) => {
    need('job', k.job, '', `kit[${n}].job`)
    for (const part of k.parts ?? []) need('part', part, '', `kit[${n}].parts`)
  })
  const look = (step: PlacedStep) => {
    if (!step.say) fault(step.id, step.path, 'no-words', 'has no sentence to read: give “say”')
    for (const { name, lists } of namesIn(step)) {
      if (lists.some((list) => known[list].has(name))) continue
      need(lists.at(-1) as NameList, name, step.id, step.path)
    }
    need('slot', step.slot, step.id, step.path)
    for (const part of step.of ?? []) need('part', part, step.id, step.path)
    for (const v of step.only ?? []) need('variant', v, step.id, step.path)
    for (const job of [...(step.jobs ?? []), ...(step.without ?? []), ...widens(step)])
      need('job', job, step.id, step.path)
    for (const [name] of conditionsOf(step))
      if (!questions.has(name)) need('part', name, step.id, step.path)
    need('slot', step.to?.torque, step.id, step.path)
    need('slot', step.to?.ceiling, step.id, step.path)
    step.steps?.forEach(look)
  }
  steps.forEach(look)
  const asked = new Set([
    ...steps.flatMap(slotsOf),
    ...guide.parts.flatMap((p) => [p.mass, p.rubberOf, p.countSlot]),
    ...(guide.fasteners ?? []).map((f) => f.count),
  ])
  guide.slots?.forEach((s, n) => {
    if (!asked.has(s.id))
      fault('', `slots[${n}]`, 'slot-unused', `“${s.id}” is asked for by no step: name it in one`)
  })
  return faults
}

const widens = ({ verdicts = [], answers = [] }: PlacedStep) =>
  [...verdicts, ...answers].map((v) => v.widens)

/** Units and counts that a step cannot have. */
export function shapeFaults(guide: Guide, steps: readonly PlacedStep[]): Fault[] {
  const faults: Fault[] = []
  const slot = (id: string | undefined) => guide.slots?.find((s) => s.id === id)
  const look = (step: PlacedStep) => {
    const add = (rule: string, message: string) =>
      faults.push({ step: step.id, path: step.path, rule, message })
    for (const id of [step.to?.torque, step.to?.ceiling]) {
      const s = slot(id)
      if (s && s.dimension !== 'torque') {
        add(
          'wrong-unit',
          `“${s.id}” is ${s.dimension ? `a ${s.dimension}` : 'a plain number'}, not a torque: give the slot the dimension torque`,
        )
      }
    }
    const held = slot(step.hold)
    if (held && held.dimension !== 'time')
      add(
        'wrong-unit',
        `“${held.id}” is ${held.dimension ? `a ${held.dimension}` : 'a plain number'}, not a time: give the slot the dimension time`,
      )
    if (step.redoFrom && !step.trial && !step.test && !step.verify)
      add('redo-unasked', '“redoFrom” needs a check that can fail: a trial, a test or “verify”')
    for (const d of mendedBy(step)) {
      if (!step.defects?.includes(d))
        add('mends-unlisted', `a verdict mends “${d}”, which is not among the defects: list it`)
    }
    step.steps?.forEach(look)
  }
  steps.forEach(look)
  return faults
}
