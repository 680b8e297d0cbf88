import { readonly, type Ref, ref, watch } from 'vue'

/** Whether something was shown already: a dialog that nobody has wanted yet is not built. */
export function useOnceShown(shown: () => boolean): Readonly<Ref<boolean>> {
  const once = ref(shown())
  watch(shown, (is) => (once.value ||= is), { flush: 'sync' })
  return readonly(once)
}
