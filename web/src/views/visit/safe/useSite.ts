import { spaceStates } from '@uvanta/core/pressure'
import { siteOfVisit } from '@uvanta/core/visit'
import { computed } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** The equipment of the open visit as spaces and valves, and how every space stands. */
export function useSite() {
  const store = useVisit()
  const library = useLibrary()
  const site = computed(() => (library.library ? siteOfVisit(store.state, library.library) : null))
  const states = computed(() =>
    site.value
      ? spaceStates(
          site.value,
          store.state.valves,
          store.state.proofs.map((p) => p.zone),
        )
      : {},
  )
  return { site, states }
}
