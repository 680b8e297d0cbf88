import { atHand, type PlacedStep, standsFor } from '@uvanta/core/guide'
import { buildsOf, type Machine, numbersOf, partsOf, type TakenOff } from '@uvanta/core/machine'
import type { Station } from '@uvanta/core/visit'
import { computed } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { useGuide } from './useGuide'

/** Parts that stay drawn beside the machine after they came off. */
const NEAR = 4

/** The machine that the guide of the open visit works on, in the build of its variant. */
export function useMachine(station: () => Station) {
  const library = useLibrary()
  const store = useVisit()
  const { guide, run } = useGuide(station)
  const machine = computed<Machine | undefined>(() =>
    library.library?.machines.find((m) => m.id === guide.value?.machine),
  )
  const options = computed(() => {
    const variant = guide.value?.variants.find((v) => v.id === store.state.guide?.variant)
    return variant?.options ?? (machine.value ? buildsOf(machine.value)[0] : undefined) ?? []
  })
  const built = computed(
    () =>
      new Set(machine.value ? partsOf(machine.value, options.value).map((p) => p.id) : undefined),
  )
  /** The parts of the machine, as it is built, that a part of the guide stands for. */
  const partsFor = (id: string | undefined): string[] => {
    const part = guide.value?.parts.find((p) => p.id === id)
    return part ? standsFor(part).filter((name) => built.value.has(name)) : []
  }
  const numbers = computed(() =>
    machine.value ? numbersOf(machine.value) : new Map<string, number>(),
  )
  /** Number of a part of the guide on the sheet of its machine. */
  const numberOf = (id: string | undefined) => numbers.value.get(partsFor(id)[0] ?? '')
  const handsOn = (step: PlacedStep) =>
    guide.value ? atHand(guide.value, step).filter((id) => built.value.has(id)) : []
  /** What is off, in the order in which it came: fasteners that are loose, then what lies on the tray. */
  const off = computed(() => {
    const parts = new Set<string>()
    for (const { loosen, tighten, remove, fit, renew, id } of run.value?.steps ?? []) {
      if (!run.value?.done.has(id)) continue
      for (const name of [loosen, ...partsFor(remove)])
        if (name && built.value.has(name)) parts.add(name)
      for (const name of [tighten, ...partsFor(fit), ...partsFor(renew)])
        if (name) parts.delete(name)
    }
    return [...parts]
  })
  /** What came off last is drawn beside the machine; the rest has been laid down. */
  const takenAt = (step: PlacedStep): TakenOff => {
    const hands = handsOn(step)
    const beside = off.value.filter(
      (name, n) => n >= off.value.length - NEAR || hands.includes(name),
    )
    const away = off.value.filter((name) => !beside.includes(name))
    return { off: new Set(beside), away: new Set(away) }
  }
  return { machine, options, partsFor, numberOf, handsOn, takenAt }
}
