import { useDebounceFn } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import {
  isNavigationFailure,
  NavigationFailureType,
  onBeforeRouteLeave,
  useRoute,
  useRouter,
} from 'vue-router'
import { ApiProblem } from '@/api/client'
import type { ListFilter, ListPage, ListQuery } from './listTypes'

interface Place {
  readonly items: readonly unknown[]
  readonly next: string | null
  readonly scroll: number
}
/** Where somebody stood in a list when he left it, by address: back is where he was. */
const places = new Map<string, Place>()

/**
 * The rows of a list. Words, filters and order live in the address, so that a list can be kept and
 * sent; a slow answer to an earlier question never overtakes a later one.
 */
export function useList<T>(
  load: (query: ListQuery) => Promise<ListPage<T>>,
  filters: () => readonly ListFilter[],
  orders: () => readonly string[],
) {
  const route = useRoute()
  const router = useRouter()
  const own = route.name
  const items = shallowRef<readonly T[]>([])
  const next = ref<string | null>(null)
  const loading = ref(false)
  const loaded = ref(false)
  const problem = shallowRef<ApiProblem | null>(null)
  let turn = 0

  const text = (name: string) => {
    const value = route.query[name]
    return typeof value === 'string' ? value : ''
  }
  const words = ref(text('q'))
  // An address may be old, or mistyped: what nobody offers is not asked for.
  const sort = computed(() => {
    const wanted = text('sort')
    return orders().includes(wanted.replace(/^-/, '')) ? wanted : ''
  })
  const chosenOf = ({ name, options }: ListFilter) => {
    const wanted = text(name)
    // Choices that have not come yet say nothing.
    return options.length === 0 || options.some((o) => o.value === wanted) ? wanted : ''
  }
  const chosen = computed(() => Object.fromEntries(filters().map((f) => [f.name, chosenOf(f)])))
  const narrowed = computed(() => text('q') !== '' || Object.values(chosen.value).some(Boolean))

  async function fetch(more = false): Promise<void> {
    const mine = ++turn
    loading.value = true
    problem.value = null
    try {
      const cursor = more && next.value ? { cursor: next.value } : {}
      const page = await load({
        q: text('q'),
        filters: chosen.value,
        sort: sort.value,
        ...cursor,
      })
      if (mine !== turn) return
      items.value = more ? [...items.value, ...page.items] : page.items
      next.value = page.next
      loaded.value = true
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      if (mine === turn) problem.value = error
    } finally {
      if (mine === turn) loading.value = false
    }
  }

  /** Rows shown before, when the person comes back to them; the first page is then not asked for. */
  function takenUp(): boolean {
    const place = places.get(route.fullPath)
    const cameBack = (window.history.state as { forward?: unknown } | null)?.forward != null
    if (!place || !cameBack) return false
    items.value = place.items as readonly T[]
    next.value = place.next
    loaded.value = true
    void nextTick(() => window.scrollTo({ top: place.scroll }))
    return true
  }

  function set(name: string, value: string): void {
    // Another place is on its way, on a slow line for seconds: a new address here would call that off.
    if (leaving) return
    void router.replace({ query: { ...route.query, [name]: value || undefined } })
  }
  function clear(): void {
    words.value = ''
    void router.replace({ query: {} })
  }
  const setWords = useDebounceFn((value: string) => set('q', value), 200)
  watch(words, (value) => value !== text('q') && void setWords(value))
  const stop = watch(
    () => route.query,
    () => {
      if (route.name === own) void fetch()
    },
  )
  let leaving = false
  const stays = () => (leaving = false)
  const unheard = [
    stop,
    router.onError(stays),
    // One that was called off for another has left all the same.
    router.afterEach((_to, _from, failure) => {
      if (failure && !isNavigationFailure(failure, NavigationFailureType.cancelled)) stays()
    }),
  ]
  onBeforeUnmount(() => unheard.forEach((end) => end()))
  onBeforeRouteLeave((_to, from) => {
    leaving = true
    places.set(from.fullPath, {
      items: items.value,
      next: next.value,
      scroll: window.scrollY,
    })
  })
  if (!takenUp()) void fetch()

  return { items, next, loading, loaded, problem, words, sort, chosen, narrowed, fetch, set, clear }
}
