import { onScopeDispose, watch } from 'vue'
import { useSession } from '@/stores/session'

const PREFIX = 'uvanta-typed/'

/** What counts as nothing typed: empty texts, lists and records of them. */
function isEmpty(value: unknown): boolean {
  if (value === undefined || value === null || value === '' || value === false) return true
  if (typeof value !== 'object') return false
  return Object.values(value).every(isEmpty)
}

/**
 * Keeps what is typed and not recorded yet on this device: it survives a reload, the way back and a dead
 * battery. Of each person his own; what is recorded or emptied is not kept any more.
 *
 * @param place what it is typed into, as a visit’s id with the name of the form
 * @param read what is typed now; anything that JSON can say
 * @param restore gets what was kept, once, before anything is typed
 * @returns forgets it, once it is recorded
 */
export function keepTyped<T>(place: string, read: () => T, restore: (kept: T) => void): () => void {
  const key = `${PREFIX}${useSession().person?.id ?? ''}/${place}`
  const kept = localStorage.getItem(key)
  if (kept) restore(JSON.parse(kept) as T)
  let recorded = false
  const stop = watch(
    read,
    (typed) => {
      if (recorded) return
      if (isEmpty(typed)) return localStorage.removeItem(key)
      try {
        localStorage.setItem(key, JSON.stringify(typed))
      } catch {
        // A device without room keeps it in the page, as before.
      }
    },
    { deep: true, flush: 'sync' },
  )
  onScopeDispose(stop)
  return () => {
    recorded = true
    localStorage.removeItem(key)
    // What is typed after that is new.
    void Promise.resolve().then(() => (recorded = false))
  }
}
