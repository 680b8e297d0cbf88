import type { Settings, SiteSpec } from '@uvanta/core/apparatus'
import { watchDebounced } from '@vueuse/core'
import { type Remote, wrap } from 'comlink'
import { onScopeDispose, type Ref, shallowRef } from 'vue'
import type { Expectation } from './expected'

/** What the model of healthy equipment expects at each place, kPa; worked out beside the page. */
export function useExpected(
  subject: Ref<{
    spec: Omit<SiteSpec, 'condition'>
    supplyKpa: number
    settings: Settings
  } | null>,
) {
  const pressures = shallowRef<Readonly<Record<string, number>>>({})
  const worker = new Worker(new URL('./expected.ts', import.meta.url), { type: 'module' })
  const remote = wrap<Expectation>(worker) as Remote<Expectation>
  onScopeDispose(() => worker.terminate())

  watchDebounced(
    subject,
    async (s) => {
      pressures.value = s ? await remote.pressures(s.spec, s.supplyKpa, s.settings) : {}
    },
    { debounce: 120, immediate: true, deep: true },
  )
  return pressures
}
