import type { Diagnosis } from '@uvanta/core/diagnosis'
import type { DiagnosisQuestion } from '@uvanta/core/visit'
import { proxy, wrap } from 'comlink'
import { onScopeDispose, readonly, ref, type Ref, shallowRef, watch } from 'vue'
import type { Diagnosing } from './diagnosing'

/** What may be wrong, worked out beside the page; ended when the question changes or the page is left. */
export function useDiagnosis(question: Ref<DiagnosisQuestion | null>) {
  const diagnosis = shallowRef<Diagnosis | null>(null)
  /** How much of it is done, 0 … 1. */
  const part = ref(0)
  const failed = ref(false)
  let worker: Worker | undefined

  async function ask(asked: DiagnosisQuestion): Promise<void> {
    const own = new Worker(new URL('./diagnosing.ts', import.meta.url), { type: 'module' })
    worker = own
    const current = () => worker === own
    try {
      const tell = proxy((done: number) => {
        if (current()) part.value = done
      })
      const found = await wrap<Diagnosing>(own).diagnose(asked, tell)
      if (current()) diagnosis.value = found
    } catch {
      // It is advice: the work goes on without.
      if (current()) failed.value = true
    } finally {
      own.terminate()
    }
  }
  const stop = () => {
    worker?.terminate()
    worker = undefined
  }
  watch(
    () => JSON.stringify(question.value),
    () => {
      stop()
      diagnosis.value = null
      part.value = 0
      failed.value = false
      if (question.value) void ask(question.value)
    },
    { immediate: true },
  )
  onScopeDispose(stop)
  return { diagnosis, part: readonly(part), failed: readonly(failed) }
}
