import { api } from 'virtual:api'
import type { Library } from '@uvanta/core/library'
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { call } from '@/api/client'

/** The know-how in force, fetched once. */
export const useLibrary = defineStore('library', () => {
  const library = shallowRef<Library | null>(null)
  let loading: Promise<Library> | undefined

  function load(): Promise<Library> {
    loading ??= fetchLibrary().catch((error: unknown) => {
      loading = undefined
      throw error
    })
    return loading
  }

  async function fetchLibrary(): Promise<Library> {
    const fetched = await call(api.library.read)
    library.value = fetched
    return fetched
  }

  return { library, load }
})
