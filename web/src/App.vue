<script setup lang="ts">
import { BApp } from 'bootstrap-vue-next/components/BApp'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'
import KeysDialog from './shell/KeysDialog.vue'
import ShellNav from './shell/ShellNav.vue'
import WaitingBar from './shell/WaitingBar.vue'
import { useSession } from './stores/session'
import { useTheme } from './stores/theme'
import { useWaiting } from './stores/waiting'

useTheme()
const session = useSession()
const route = useRoute()
const waiting = useWaiting()
waiting.begin()
watch(
  () => session.person?.id,
  () => void waiting.send(),
)
const withNav = computed(() => session.person && !route.meta.public)
</script>

<template>
  <BApp>
    <a class="skip" href="#main">Skip to content</a>
    <WaitingBar />
    <ShellNav v-if="withNav" />
    <main id="main" :class="{ bare: !withNav }" tabindex="-1">
      <RouterView />
    </main>
    <KeysDialog />
  </BApp>
</template>

<style>
#main {
  max-width: 1400px;
  margin: 0 auto;
  padding: 1rem 1.25rem 5rem;
  outline: none;
}

.skip {
  position: absolute;
  left: -100vw;
}

.skip:focus {
  left: 0.5rem;
  top: 0.5rem;
  z-index: 10;
  background: var(--paper);
  padding: 0.75rem;
}

@media (max-width: 700px) {
  #main {
    padding: 0.75rem 0.75rem 6rem;
  }
}
</style>
