import { api } from 'virtual:api'
import type { Library } from '@uvanta/core/library'
import { noEarlier } from '@uvanta/core/library/earlier'
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { call } from '@/api/client'

/** The know-how in force, fetched once; what was in force before, once somebody needs it. */
export const useLibrary = defineStore('library', () => {
  const library = shallowRef<Library | null>(null)
  const load = once(async () => {
    const fetched: Library = { ...(await call(api.library.read)), earlier: noEarlier }
    library.value = fetched
    return fetched
  })
  const loadEarlier = once(async () => {
    const [inForce, earlier] = await Promise.all([load.run(), call(api.library.earlier)])
    const whole: Library = { ...inForce, earlier }
    library.value = whole
    return whole
  })

  /** What was put in force meanwhile is fetched when it is next needed. */
  function forget(): void {
    library.value = null
    load.forget()
    loadEarlier.forget()
  }

  return { library, load: load.run, loadEarlier: loadEarlier.run, forget }
})

/** What is fetched once; what failed is tried again. */
function once<T>(fetch: () => Promise<T>) {
  let loading: Promise<T> | undefined
  const forget = () => {
    loading = undefined
  }
  const run = () =>
    (loading ??= fetch().catch((error: unknown) => {
      forget()
      throw error
    }))
  return { run, forget }
}
