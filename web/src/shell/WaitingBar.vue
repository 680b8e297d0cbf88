<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { ref } from 'vue'
import { useRouter } from 'vue-router'

/** A line along the top while another place is on its way: on a slow line a press is answered at once. */
const router = useRouter()
const shown = ref(false)
/** What comes sooner is not announced. */
const SOON_MS = 120
const { start, stop } = useTimeoutFn(() => (shown.value = true), SOON_MS, { immediate: false })
const end = () => {
  stop()
  shown.value = false
}
router.beforeEach(() => start())
router.afterEach(end)
router.onError(end)
</script>

<template>
  <div v-if="shown" class="waiting" role="status" aria-label="On its way"></div>
</template>

<style scoped>
.waiting {
  position: fixed;
  inset: 0 0 auto;
  height: 4px;
  z-index: 1100;
  background: repeating-linear-gradient(90deg, var(--blue) 0 24px, transparent 24px 36px);
  animation: along 0.9s linear infinite;
}

@keyframes along {
  to {
    background-position-x: 36px;
  }
}
</style>
