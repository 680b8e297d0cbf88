import { usePreferredDark, useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, watchEffect } from 'vue'

/** Paper or blueprint: as the device prefers, until the person chooses. */
export const useTheme = defineStore('theme', () => {
  const chosen = useStorage<'light' | 'dark' | ''>('uvanta-theme', '')
  const prefersDark = usePreferredDark()
  const theme = computed(() => chosen.value || (prefersDark.value ? 'dark' : 'light'))
  watchEffect(() => (document.documentElement.dataset.bsTheme = theme.value))
  const toggle = () => (chosen.value = theme.value === 'dark' ? 'light' : 'dark')
  return { theme, toggle }
})
