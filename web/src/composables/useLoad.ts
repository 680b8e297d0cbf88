import { ref, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'

/** Something that is fetched: its value, whether it is on its way, and what went wrong. */
export function useLoad<T>(fetcher: () => Promise<T>) {
  const value = shallowRef<T | null>(null)
  const loading = ref(false)
  const problem = shallowRef<ApiProblem | null>(null)
  let turn = 0

  async function load(): Promise<void> {
    const mine = ++turn
    loading.value = true
    problem.value = null
    try {
      const result = await fetcher()
      if (mine === turn) value.value = result
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      if (mine === turn) problem.value = error
    } finally {
      if (mine === turn) loading.value = false
    }
  }

  return { value, loading, problem, load }
}
