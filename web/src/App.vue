<script setup lang="ts">
import { useRegistry } from 'bootstrap-vue-next/composables/useRegistry'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useKeys } from './composables/useKeys'
import ShellNav from './shell/ShellNav.vue'
import WaitingBar from './shell/WaitingBar.vue'
import { useSession } from './stores/session'
import { useTheme } from './stores/theme'
import { useLock } from './stores/lock'
import { useWaiting } from './stores/waiting'

/** Not before somebody needs them. */
const LockScreen = defineAsyncComponent(() => import('./shell/LockScreen.vue'))
const KeysDialog = defineAsyncComponent(() => import('./shell/KeysDialog.vue'))

// What BApp provides for dialogs and menus, without its toasts and tooltips.
useRegistry()
useTheme()
const session = useSession()
const route = useRoute()
const waiting = useWaiting()
waiting.begin()
const lock = useLock()
void lock.begin()
watch([() => session.person?.id, () => lock.openings], () => void waiting.send())
const keysWanted = ref(false)
useKeys([{ key: '?', does: 'Show the keys of this view', run: () => (keysWanted.value = true) }])
const shut = computed(() => lock.reason !== null && session.person !== null)
const withNav = computed(() => session.person && !route.meta.public)
</script>

<template>
  <a class="skip" href="#main">Skip to content</a>
  <WaitingBar />
  <ShellNav v-if="withNav" :inert="shut" :class="{ 'app-locked': shut }" />
  <main id="main" :class="{ bare: !withNav, 'app-locked': shut }" tabindex="-1" :inert="shut">
    <RouterView />
  </main>
  <LockScreen v-if="shut" />
  <KeysDialog v-if="keysWanted" v-model="keysWanted" />
</template>

<style>
#main {
  max-width: 1400px;
  margin: 0 auto;
  padding: 1rem 1.25rem 5rem;
  outline: none;
}

/* Locked is out of sight at once, whether or not the screen over it has come. */
.app-locked {
  visibility: hidden;
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

@media (max-width: 43.75em) {
  #main {
    padding: 0.75rem 0.75rem 6rem;
  }
}
</style>
