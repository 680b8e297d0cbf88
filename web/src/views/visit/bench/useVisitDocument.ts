import { certificatePayload, correctionsMade } from '@uvanta/core/certificate'
import { computed, onMounted, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'

/** A visit as a document: opened, and what it says once it is signed. */
export function useVisitDocument(id: () => string) {
  const store = useVisit()
  const library = useLibrary()
  const session = useSession()
  const problem = shallowRef<ApiProblem | null>(null)
  async function load() {
    problem.value = null
    try {
      if (store.visit?.id !== id()) await store.open(id())
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error
    }
  }
  onMounted(load)
  const signed = computed(() => store.state.signed)
  /** As its certificate says it, with the number of that; before there is one, as provisional. */
  const payload = computed(() =>
    signed.value && library.library && store.visit
      ? certificatePayload(store.state, library.library, {
          number: store.state.certificate?.number ?? 'Provisional',
          code: '',
          issuedAt: store.state.certificate?.recordedAt ?? signed.value.recordedAt,
          utility: session.utility,
          visitId: store.visit.id,
          headHash: '',
          corrections: correctionsMade(store.events),
        })
      : null,
  )
  return { store, problem, load, signed, payload }
}
