import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { useByAndBy } from './useByAndBy'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

async function rest(): Promise<void> {
  vi.runOnlyPendingTimers()
  await nextTick()
}

describe('a list in pieces', () => {
  it('begins with one piece, and ends with everything', async () => {
    const scope = effectScope()
    const shown = scope.run(() => useByAndBy(() => 20, 8))!
    const seen = [shown.value]
    for (let n = 0; n < 5; n++) {
      await rest()
      seen.push(shown.value)
    }
    expect(seen[0]).toBe(8)
    expect(seen[1]).toBe(16)
    expect(seen.at(-1)).toBeGreaterThanOrEqual(20)
    expect(vi.getTimerCount()).toBe(0)
    scope.stop()
  })
  it('has all that somebody had before, at once', () => {
    const scope = effectScope()
    expect(scope.run(() => useByAndBy(() => 30, 8, 30))?.value).toBe(30)
    expect(vi.getTimerCount()).toBe(0)
    scope.stop()
  })
  it('goes on when more has come, and not once it is left', async () => {
    const scope = effectScope()
    const total = ref(0)
    const shown = scope.run(() => useByAndBy(() => total.value, 8))!
    expect(vi.getTimerCount()).toBe(0)
    total.value = 30
    await nextTick()
    await rest()
    expect(shown.value).toBe(16)
    scope.stop()
    await rest()
    expect(shown.value).toBe(16)
  })
})
