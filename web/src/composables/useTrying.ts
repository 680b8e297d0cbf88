import { ref, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'

/** What somebody asks of the server from a form or a list: while it goes on nothing else is begun, and a problem is said. */
export function useTrying() {
  const busy = ref(false)
  const problem = shallowRef<ApiProblem | null>(null)

  /** @returns whether it was done */
  async function trying(work: () => Promise<unknown>): Promise<boolean> {
    problem.value = null
    busy.value = true
    try {
      await work()
      return true
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error
      return false
    } finally {
      busy.value = false
    }
  }

  return { busy, problem, trying }
}
