import { afterEach, describe, expect, it } from 'vitest'
import { effectScope } from 'vue'
import { useStroke } from './useStroke'

/** Three boxes of 50 px, one below the other. */
const boxes = [100, 150, 200].map(
  (top) => ({ getBoundingClientRect: () => ({ top, bottom: top + 50 }) }) as unknown as Element,
)
const finger = (type: string, clientY: number, clientX = 20, pointerId = 1) =>
  new PointerEvent(type, { pointerId, clientX, clientY, button: 0, isPrimary: true })
const at = (type: string, y: number, x?: number, pointerId?: number) =>
  dispatchEvent(finger(type, y, x, pointerId))

const scope = effectScope()
afterEach(() => at('pointercancel', 0))
function strokes() {
  const drawn: number[] = []
  const stroke = scope.run(() =>
    useStroke(
      () => boxes,
      (n) => drawn.push(n),
    ),
  )!
  stroke.begin(finger('pointerdown', 120))
  return { drawn, ...stroke }
}

describe('a stroke down a column of boxes', () => {
  it('counts for the boxes that it came to once the finger is lifted, and not before', () => {
    const { drawn, marked } = strokes()
    at('pointermove', 170)
    at('pointermove', 220)
    expect(marked.value).toBe(3)
    expect(drawn).toEqual([])
    at('pointerup', 220)
    expect(drawn).toEqual([3])
    expect(marked.value).toBe(0)
  })
  it('drawn back up counts for those that are left', () => {
    const { drawn } = strokes()
    at('pointermove', 220)
    at('pointermove', 170)
    at('pointerup', 170)
    expect(drawn).toEqual([2])
  })
  it('is let go to the side, and when the page takes the finger', () => {
    const aside = strokes()
    at('pointermove', 220)
    at('pointermove', 220, 200)
    at('pointerup', 220, 200)
    expect(aside.drawn).toEqual([])
    const taken = strokes()
    at('pointermove', 220)
    at('pointercancel', 220)
    at('pointerup', 220)
    expect(taken.drawn).toEqual([])
  })
  it('over one box is a press, and its end is none', () => {
    const press = strokes()
    at('pointerup', 120)
    expect(press.drawn).toEqual([])
    expect(press.endsStroke()).toBe(false)
    const stroke = strokes()
    at('pointermove', 170)
    at('pointerup', 170)
    expect(stroke.endsStroke()).toBe(true)
    expect(stroke.endsStroke()).toBe(false)
  })
  it('that ended on another box takes nothing from a key that is hit later', async () => {
    const stroke = strokes()
    at('pointermove', 170)
    at('pointerup', 170)
    await new Promise((later) => setTimeout(later, 5))
    expect(stroke.endsStroke()).toBe(false)
  })
  it('is of one finger', () => {
    const { drawn } = strokes()
    at('pointermove', 220, 20, 2)
    at('pointerup', 220, 20, 2)
    expect(drawn).toEqual([])
  })
})
