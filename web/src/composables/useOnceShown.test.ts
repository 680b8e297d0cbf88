import { expect, it } from 'vitest'
import { ref } from 'vue'
import { useOnceShown } from './useOnceShown'

it('is not built before it is shown, and stays once it was', () => {
  const shown = ref(false)
  const once = useOnceShown(() => shown.value)
  expect(once.value).toBe(false)
  shown.value = true
  expect(once.value).toBe(true)
  shown.value = false
  expect(once.value).toBe(true)
})
