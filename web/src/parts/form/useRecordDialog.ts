import { ref, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'

/** A dialog that saves one record: open or not, busy or not, and what the server refused. */
export function useRecordDialog<S, T>(save: (subject: S, values: T) => Promise<unknown>) {
  const shown = ref(false)
  const busy = ref(false)
  const subject = shallowRef<S | null>(null)
  const problem = shallowRef<ApiProblem | null>(null)

  function open(what: S): void {
    subject.value = what
    problem.value = null
    shown.value = true
  }

  async function submit(values: T): Promise<void> {
    if (subject.value === null) return
    busy.value = true
    problem.value = null
    try {
      await save(subject.value, values)
      shown.value = false
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error
    } finally {
      busy.value = false
    }
  }

  return { shown, busy, subject, problem, open, submit }
}
