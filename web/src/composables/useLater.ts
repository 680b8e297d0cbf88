import { onScopeDispose, readonly, type ShallowRef, shallowRef, watch } from 'vue'

/**
 * What may follow a moment later, as the log below a step: it takes its new value once the browser has drawn what comes
 * first, so that no press waits for it.
 */
export function useLater<T>(value: () => T): Readonly<ShallowRef<T>> {
  const shown = shallowRef(value())
  let frame = 0
  watch(value, () => {
    cancelAnimationFrame(frame)
    // What comes first is drawn at the end of the next frame; what follows is part of the one after it.
    frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => (shown.value = value()))
    })
  })
  onScopeDispose(() => cancelAnimationFrame(frame))
  return readonly(shown) as Readonly<ShallowRef<T>>
}
