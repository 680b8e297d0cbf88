import type { VisitEvent } from '@uvanta/core/visit'
import { computed } from 'vue'
import { eventWords } from '@/composables/eventWords'
import { useVisit } from '@/stores/visit'
import { useLogNames } from './useLogNames'

/** The log of the open visit in words, in its order; what was corrected with what it is now. */
export function useLogEntries() {
  const store = useVisit()
  const names = useLogNames()
  return computed(() =>
    store.events.flatMap((event) => {
      const words = eventWords(event, names.value)
      if (!words) return []
      const correction = store.state.corrections[event.id]
      return [
        {
          event,
          words,
          correction,
          doubt: store.state.clockDoubts[event.id],
          asked: store.state.asked.find((a) => a.of === event.id),
          now: correction?.payload
            ? eventWords({ ...event, payload: correction.payload } as VisitEvent, names.value)
            : null,
        },
      ]
    }),
  )
}
