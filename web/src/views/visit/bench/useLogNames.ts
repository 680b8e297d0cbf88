import { apparatusOf, elementLabel } from '@uvanta/core/apparatus'
import { expandGuide, stepWords } from '@uvanta/core/guide'
import type { StepRecord } from '@uvanta/core/procedure'
import { guideOfVisit, planOfVisit, type RunName } from '@uvanta/core/visit'
import { computed } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** What the entries of the open visit call things: steps, elements, what is read. */
export function useLogNames() {
  const store = useVisit()
  const library = useLibrary()
  /** All steps of the guide, those of other ways too: the log outlives a finding that was changed. */
  const sentences = computed(() => {
    const text = library.library ? guideOfVisit(store.state, library.library) : null
    const steps = text ? expandGuide(text.guide, text.subGuides).steps : []
    return new Map(steps.map((s) => [s.id, stepWords(s)]))
  })
  const itemOf = (record: StepRecord | undefined) =>
    record ? [[record.item, record.title] as const] : []
  /** What each run records, by item. */
  const titles = computed(() => {
    const of = (run: RunName) => {
      const plan = library.library && planOfVisit(store.state, library.library, run)
      return plan && new Map(plan.procedure.steps.flatMap((s) => itemOf(s.record)))
    }
    return { 'as-found': of('as-found'), 'as-left': of('as-left') }
  })
  const names = computed(() => {
    const apparatus = apparatusOf(store.state.plan?.equipment.kind ?? '')
    return {
      step: (step: string) => sentences.value.get(step),
      ...(apparatus ? { element: (id: string) => elementLabel(apparatus, id) } : {}),
      item: (run: RunName, id: string) => titles.value[run]?.get(id) ?? id.replaceAll('-', ' '),
    }
  })
  return names
}
