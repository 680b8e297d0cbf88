import type { PlacedStep } from '../schema/step'
import { type Fault, pressureSite } from './rule'
import { connectedWith } from '../../pressure'
import type { Guide } from '../schema/guide'

/**
 * What a guide declares of its equipment and ties to nothing: a zone that no part opens, a spring that
 * pushes against nothing, fasteners that nobody touches. Each is a slip, and mostly a dangerous one.
 */
export function tieFaults(guide: Guide, steps: readonly PlacedStep[]): Fault[] {
  const all = steps.flatMap(withInner)
  const faults: Fault[] = []
  const add = (path: string, rule: string, message: string) =>
    faults.push({ step: '', path, rule, message })
  guide.zones?.forEach((zone, n) => {
    const together = connected(guide, zone.id)
    if (!guide.parts.some((p) => p.closes && together.includes(p.closes)))
      add(
        `zones[${n}]`,
        'zone-unopened',
        `no part opens “${zone.id}”: give “closes” to the part that does, or take the zone off`,
      )
  })
  guide.springs?.forEach((spring, n) => {
    if (!guide.parts.some((p) => p.spring === spring.id))
      add(
        `springs[${n}]`,
        'spring-untied',
        `“${spring.id}” pushes against no part: give “spring” to the part that it pushes against`,
      )
  })
  guide.fasteners?.forEach((f, n) => {
    const opened = all.some((s) => s.remove === f.holds || s.discard === f.holds)
    const touched = all.some((s) => s.loosen === f.id || s.tighten === f.id)
    if (!touched && !opened)
      add(
        `fasteners[${n}]`,
        'fastener-untouched',
        `“${f.id}” is neither loosened nor tightened, and what it holds never comes off: mend “holds”, or take it off`,
      )
  })
  const valves = new Set(all.flatMap((s) => s.isolate ?? []))
  if (valves.size > 1 && !guide.order)
    add(
      'zones',
      'no-order',
      `${valves.size} valves are shut, and their order is said nowhere: give “order”, shut and opened`,
    )
  return [...faults, ...all.flatMap((step) => stepFaults(guide, step))]
}

/** A zone with those that stand in connection with it: one that is opened opens all. */
function connected(guide: Guide, id: string): string[] {
  const site = pressureSite(guide)
  const own = site.zones.find((z) => z.id === id)
  return own ? connectedWith(site, own).map((z) => z.id) : []
}

const withInner = (step: PlacedStep): PlacedStep[] => [
  step,
  ...(step.steps ?? []).flatMap(withInner),
]

/** A counted ring of bolts without its order, a pressure of another dimension. */
function stepFaults(guide: Guide, step: PlacedStep): Fault[] {
  const faults: Fault[] = []
  const add = (rule: string, message: string) =>
    faults.push({ step: step.id, path: step.path, rule, message })
  const fastener = guide.fasteners?.find((f) => f.id === step.tighten)
  const toFigure = step.to?.torque ?? step.to?.ceiling
  if (fastener?.count && toFigure && !step.pattern)
    add(
      'no-pattern',
      `${fastener.title} are counted and tightened to a torque, and have no order: give “pattern”`,
    )
  const slot = guide.slots?.find((s) => s.id === step.slot)
  if (step.air === 'on' && slot && slot.dimension !== 'gaugePressure')
    add('wrong-unit', `“${slot.id}” is the air to put on, and no pressure: give it gaugePressure`)
  return faults
}
