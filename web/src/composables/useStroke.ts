import { onScopeDispose, ref } from 'vue'

/** This near the end of the screen the page comes to meet the finger, px, and so far at a time. */
const EDGE = 110
const SCROLL = 6
/** A finger that goes this far to the side has let the stroke go, px. */
const ASIDE = 90

/**
 * A stroke drawn down a column of boxes, from the first that is open: each box that it comes to is marked, drawn back
 * up it is unmarked again, and lifted it counts for all of them. A press on one box is a click, as ever.
 * @param open the boxes that are still open, in their order
 * @param drawn what a stroke over so many of them does
 */
export function useStroke(open: () => readonly Element[], drawn: (boxes: number) => void) {
  /** How many boxes the finger has come to; none while it is up. */
  const marked = ref(0)
  let from: { readonly pointer: number; readonly x: number } | null = null
  let stroked = false
  let finger = 0
  let frame = 0

  function begin(event: PointerEvent) {
    if (event.button !== 0 || !event.isPrimary) return
    from = { pointer: event.pointerId, x: event.clientX }
    stroked = false
    marked.value = 1
    addEventListener('pointermove', move)
    addEventListener('pointerup', lift)
    addEventListener('pointercancel', letGo)
  }
  function move(event: PointerEvent) {
    if (event.pointerId !== from?.pointer) return
    if (Math.abs(event.clientX - from.x) > ASIDE) return letGo()
    finger = event.clientY
    mark()
    if (finger > innerHeight - EDGE && frame === 0) frame = requestAnimationFrame(follow)
  }
  function mark() {
    const reached = open().filter((box) => {
      const { top, bottom } = box.getBoundingClientRect()
      return finger >= top + (bottom - top) / 4
    }).length
    marked.value = Math.max(1, reached)
    if (marked.value > 1) stroked = true
  }
  /** What is below the screen is drawn over too: the page goes on under the finger. */
  function follow() {
    frame = 0
    const more = open().length > marked.value
    if (!from || !more || finger <= innerHeight - EDGE) return
    scrollBy(0, SCROLL)
    mark()
    frame = requestAnimationFrame(follow)
  }
  function lift(event: PointerEvent) {
    if (event.pointerId !== from?.pointer) return
    const boxes = marked.value
    letGo()
    if (boxes > 1) drawn(boxes)
  }
  function letGo() {
    from = null
    marked.value = 0
    cancelAnimationFrame(frame)
    frame = 0
    // The click of its end comes at once, if it comes at all: a key that is hit later is a press.
    setTimeout(() => (stroked = false))
    removeEventListener('pointermove', move)
    removeEventListener('pointerup', lift)
    removeEventListener('pointercancel', letGo)
  }
  onScopeDispose(letGo)

  /** Whether a click is the end of a stroke, and not a press of its own. */
  function endsStroke(): boolean {
    const was = stroked
    stroked = false
    return was
  }
  return { marked, begin, endsStroke }
}
