import { useEventListener, useStorage } from '@vueuse/core'
import { onUnmounted, reactive } from 'vue'

export interface KeyBinding {
  readonly key: string
  readonly does: string
  readonly run: () => void
}

/** All keys that work in the present view, for the list behind “?”. */
export const activeKeys = reactive(new Set<KeyBinding>())

/** Whoever speaks to the device, or hits keys unmeant, switches single keys off (WCAG 2.1.4). */
export const useSingleKeys = () => useStorage('uvanta-single-keys', true)

/** Keys of a view. They rest while something is being typed or a dialog is open. */
export function useKeys(bindings: readonly KeyBinding[]): void {
  for (const b of bindings) activeKeys.add(b)
  onUnmounted(() => {
    for (const b of bindings) activeKeys.delete(b)
  })
  const on = useSingleKeys()
  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    if (!on.value) return
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
    if (document.querySelector('.modal.show')) return
    const binding = bindings.find((b) => b.key === event.key)
    if (!binding) return
    event.preventDefault()
    binding.run()
  })
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  )
}
