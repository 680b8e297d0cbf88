<script setup lang="ts">
import { BApp } from 'bootstrap-vue-next/components/BApp'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'
import KeysDialog from './shell/KeysDialog.vue'
import ShellNav from './shell/ShellNav.vue'
import WaitingBar from './shell/WaitingBar.vue'
import { useSession } from './stores/session'
import { useTheme } from './stores/theme'
import LockScreen from './shell/LockScreen.vue'
import { useLock } from './stores/lock'
import { useVisit } from './stores/visit'
import { useWaiting } from './stores/waiting'

useTheme()
const session = useSession()
const route = useRoute()
const waiting = useWaiting()
waiting.begin()
const lock = useLock()
const visit = useVisit()
void lock.begin()
watch([() => session.person?.id, () => lock.openings], () => {
  void waiting.send()
  void visit.flush()
})
const shut = computed(() => lock.reason !== null && session.person !== null)
const withNav = computed(() => session.person && !route.meta.public)
</script>

<template>
  <BApp>
    <a class="skip" href="#main">Skip to content</a>
    <WaitingBar />
    <ShellNav v-if="withNav" :inert="shut" />
    <main id="main" :class="{ bare: !withNav }" tabindex="-1" :inert="shut">
      <RouterView />
    </main>
    <LockScreen v-if="shut" />
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
