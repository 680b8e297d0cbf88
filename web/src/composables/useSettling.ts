import { useEventListener, useMutationObserver } from '@vueuse/core'
import { onMounted, type Ref } from 'vue'

/** How long something that has just appeared takes no press, ms. */
const SETTLES_MS = 500
const PRESSED = 'button, [role="button"], a[href], [type="submit"]'

/**
 * A press counts once: what has just come up under the thumb does not take the press that was meant for
 * what stood there before. It is dimmed until it does.
 *
 * @param region what is watched for what comes up
 */
export function useSettling(region: Ref<HTMLElement | null>): void {
  const settle = (root: Node) => {
    if (!(root instanceof Element)) return
    for (const pressed of [root, ...root.querySelectorAll(PRESSED)]) {
      if (!pressed.matches(PRESSED)) continue
      pressed.setAttribute('data-settling', '')
      setTimeout(() => pressed.removeAttribute('data-settling'), SETTLES_MS)
    }
  }
  useMutationObserver(region, (changes) => changes.forEach((c) => c.addedNodes.forEach(settle)), {
    childList: true,
    subtree: true,
  })
  onMounted(() => region.value && settle(region.value))
  // A key that is held down, or hit twice, has no pointer that the style sheet could stop.
  useEventListener(
    region,
    'click',
    (event) => {
      const early = (event.target as Element).closest('[data-settling]')
      if (!early || !event.isTrusted) return
      event.preventDefault()
      event.stopPropagation()
    },
    { capture: true },
  )
}
