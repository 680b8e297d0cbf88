import { apparatusOf, elementLabel } from '@uvanta/core/apparatus'
import { expandGuide, stepWords } from '@uvanta/core/guide'
import type { StepRecord } from '@uvanta/core/procedure'
import { guideOfVisit, planOfVisit, type RunName, runNames } from '@uvanta/core/visit'
import { computed, shallowRef, watch } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/**
 * What the entries of the open visit call things: steps, elements, what is read. They stay the same object from entry
 * to entry, as long as guide and procedures do.
 */
export function useLogNames() {
  const store = useVisit()
  const library = useLibrary()
  const text = () => (library.library ? guideOfVisit(store.state, library.library) : null)
  const guide = computed(() => text()?.guide)
  const subGuides = computed(() => text()?.subGuides ?? [])
  /** All steps of the guide, those of other ways too: the log outlives a finding that was changed. */
  const sentences = computed(() => {
    const steps = guide.value ? expandGuide(guide.value, subGuides.value).steps : []
    return new Map(steps.map((s) => [s.id, stepWords(s)]))
  })
  const itemOf = (record: StepRecord | undefined) =>
    record ? [[record.item, record.title] as const] : []
  const procedureOf = (run: RunName) =>
    library.library ? planOfVisit(store.state, library.library, run)?.procedure : undefined
  /** What each run records, by item. */
  const titlesOf = (run: RunName) =>
    new Map(procedureOf(run)?.steps.flatMap((s) => itemOf(s.record)))
  const titles = shallowRef<Partial<Record<RunName, ReadonlyMap<string, string>>>>({})
  watch(
    () => runNames.map((run) => `${procedureOf(run)?.id} ${procedureOf(run)?.version}`).join(),
    () => (titles.value = Object.fromEntries(runNames.map((run) => [run, titlesOf(run)] as const))),
    { immediate: true, flush: 'sync' },
  )
  const apparatus = computed(() => apparatusOf(store.state.plan?.equipment.kind ?? ''))
  return computed(() => {
    const [steps, items, site] = [sentences.value, titles.value, apparatus.value]
    return {
      step: (step: string) => steps.get(step),
      ...(site ? { element: (id: string) => elementLabel(site, id) } : {}),
      item: (run: RunName, id: string) => items[run]?.get(id) ?? id.replaceAll('-', ' '),
    }
  })
}
