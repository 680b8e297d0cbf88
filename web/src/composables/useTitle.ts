import { toValue, watchEffect, type MaybeRefOrGetter } from 'vue'

/** The page's name in the browser's tab. */
export function useTitle(title: MaybeRefOrGetter<string | undefined>): void {
  watchEffect(() => {
    const name = toValue(title)
    document.title = name ? `${name} · Uvanta` : 'Uvanta'
  })
}
