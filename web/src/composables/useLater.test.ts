import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { useLater } from './useLater'

beforeEach(
  () => void vi.useFakeTimers({ toFake: ['requestAnimationFrame', 'cancelAnimationFrame'] }),
)
afterEach(() => void vi.useRealTimers())

it('follows what it shows a moment later, with the newest of several', async () => {
  const scope = effectScope()
  const entries = ref(1)
  const shown = scope.run(() => useLater(() => entries.value))!
  expect(shown.value).toBe(1)
  entries.value = 2
  await nextTick()
  // Neither with the change itself nor in the frame that draws it.
  expect(shown.value).toBe(1)
  vi.advanceTimersToNextFrame()
  expect(shown.value).toBe(1)
  entries.value = 3
  await nextTick()
  vi.runAllTimers()
  expect(shown.value).toBe(3)
  entries.value = 4
  await nextTick()
  scope.stop()
  vi.runAllTimers()
  expect(shown.value).toBe(3)
})
