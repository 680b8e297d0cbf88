import { onScopeDispose, readonly, ref, type Ref, watch } from 'vue'

/** Between two pieces the browser draws what has come, and answers a press, ms. */
const REST_MS = 20

/**
 * A long list comes in pieces: what is next is there at once, and no press waits for what is out of sight.
 * @param total how many there are
 * @param size how many come at a time
 * @param first how many there are at once, where somebody comes back to them
 * @returns how many are shown by now: `size` at first, all of them in the end
 */
export function useByAndBy(total: () => number, size: number, first = size): Readonly<Ref<number>> {
  const shown = ref(Math.max(first, size))
  let due: ReturnType<typeof setTimeout> | undefined
  function goOn(): void {
    clearTimeout(due)
    if (shown.value < total()) due = setTimeout(() => (shown.value += size), REST_MS)
  }
  watch([total, shown], goOn, { immediate: true })
  onScopeDispose(() => clearTimeout(due))
  return readonly(shown)
}
