import { atHand, type PlacedStep, standsFor } from '@uvanta/core/guide'
import { buildsOf, type Machine, numbersOf, partsOf } from '@uvanta/core/machine'
import type { Station } from '@uvanta/core/visit'
import { computed } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { useGuide } from './useGuide'

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
  /** What lies on the tray, and the fasteners that are loose. */
  const off = computed(() => {
    const parts = new Set(run.value?.tray.flatMap((p) => partsFor(p.id)))
    for (const { loosen, tighten, id } of run.value?.steps ?? []) {
      if (!run.value?.done.has(id)) continue
      if (loosen && built.value.has(loosen)) parts.add(loosen)
      if (tighten) parts.delete(tighten)
    }
    return parts
  })
  return { machine, options, partsFor, numberOf, handsOn, off }
}
