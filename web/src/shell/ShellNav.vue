<script setup lang="ts">
import IconAward from '~icons/bi/patch-check'
import IconBook from '~icons/bi/book'
import IconCalendar from '~icons/bi/calendar3'
import IconDark from '~icons/bi/moon'
import IconGear from '~icons/bi/people'
import IconLight from '~icons/bi/sun'
import IconStock from '~icons/bi/box-seam'
import IconTool from '~icons/bi/wrench'
import IconValve from '~icons/bi/diagram-2'
import { computed, defineAsyncComponent, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useKeys } from '@/composables/useKeys'
import { useSession } from '@/stores/session'
import { useTheme } from '@/stores/theme'
import { useWaiting } from '@/stores/waiting'
import { asOf } from '@/api/kept'
import OwnName from './OwnName.vue'
import { clockWords } from '@/composables/words'

const session = useSession()
const theme = useTheme()
const router = useRouter()

const places = computed(() => [
  { name: 'today', label: 'Today', icon: IconCalendar, key: '1' },
  { name: 'equipment-list', label: 'Equipment', icon: IconValve, key: '2' },
  { name: 'certificate-list', label: 'Certificates', icon: IconAward, key: '3' },
  { name: 'library', label: 'Library', icon: IconBook, key: '4' },
  { name: 'workbench', label: 'Workbench', icon: IconTool, key: '5' },
  ...(session.has('administrator')
    ? [{ name: 'people', label: 'Office', icon: IconGear, key: '6' }]
    : session.has('planner')
      ? [{ name: 'customers', label: 'Office', icon: IconGear, key: '6' }]
      : session.has('technician')
        ? [{ name: 'stock', label: 'Stock', icon: IconStock, key: '6' }]
        : []),
])

useKeys(
  places.value.map((p) => ({
    key: p.key,
    does: `Go to ${p.label}`,
    run: () => void router.push({ name: p.name }),
  })),
)

const waiting = useWaiting()
const waitingWords = computed(() => {
  const [only, ...more] = waiting.visits
  const entries = `${waiting.total} ${waiting.total === 1 ? 'entry' : 'entries'}`
  if (waiting.visits.some((v) => v.says)) return `${entries}, some refused`
  const of = only && more.length === 0 ? ` of ${only.tag}` : ''
  return `${entries}${of} ${waiting.total === 1 ? 'waits' : 'wait'}`
})
const asking = ref(false)
const menuWanted = ref(false)
/** A menu takes more script than all the rest of the head: it comes when its button is pressed. */
const OwnMenu = defineAsyncComponent({
  loader: () => import('./OwnMenu.vue'),
  loadingComponent: OwnName,
  delay: 0,
  // Without a line it may not have come yet: the account says what to do then.
  onError(_error, _retry, fail) {
    menuWanted.value = false
    void router.push({ name: 'account' })
    fail()
  },
})
/** Not before somebody needs it. */
const SignOutDialog = defineAsyncComponent(() => import('./SignOutDialog.vue'))
async function leave() {
  asking.value = false
  await session.signOut()
  await router.push({ name: 'sign-in' })
}
/** What waits is said before the device is handed on. */
async function signOut() {
  await waiting.refresh()
  if (waiting.total > 0) asking.value = true
  else await leave()
}
</script>

<template>
  <header class="shell-nav">
    <RouterLink class="brand" :to="{ name: 'today' }">
      <svg viewBox="0 0 34 20" aria-hidden="true">
        <path d="M0 6h8M0 14h8M26 6h8M26 14h8" />
        <circle cx="17" cy="10" r="8.5" />
        <path class="lever" d="M10 10h14" />
      </svg>
      <span class="word">Uvanta</span>
    </RouterLink>
    <nav aria-label="Places">
      <RouterLink v-for="p in places" :key="p.name" :to="{ name: p.name }" class="place">
        <component :is="p.icon" aria-hidden="true" />
        <span>{{ p.label }}</span>
      </RouterLink>
    </nav>
    <div class="self">
      <span v-if="asOf" class="line" role="status"
        >No line<span class="more"> · as of {{ clockWords(asOf) }}</span></span
      >
      <RouterLink v-if="waiting.total > 0" class="line" :to="{ name: 'waiting' }"
        ><span class="brief" aria-hidden="true">{{ waiting.total }} ↑</span
        ><span class="more">{{ waitingWords }}</span></RouterLink
      >
      <button
        class="plain"
        type="button"
        :aria-label="theme.theme === 'dark' ? 'Show on paper' : 'Show as blueprint'"
        @click="theme.toggle"
      >
        <IconLight v-if="theme.theme === 'dark'" aria-hidden="true" /><IconDark
          v-else
          aria-hidden="true"
        />
      </button>
      <OwnMenu v-if="menuWanted" @sign-out="signOut" />
      <OwnName v-else @open="menuWanted = true" />
    </div>
    <SignOutDialog v-if="asking" v-model="asking" :total="waiting.total" @leave="leave" />
  </header>
</template>

<style scoped>
.shell-nav {
  display: flex;
  /* With large letters the places have a row of their own, and more. */
  flex-wrap: wrap;
  align-items: stretch;
  gap: 1rem;
  border-bottom: 2px solid var(--rule-strong);
  padding: 0 1.25rem;
  background: var(--paper);
  position: sticky;
  top: 0;
  z-index: 5;
}

.brand {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  font-weight: 750;
  font-size: 1.15rem;
  color: var(--ink);
  text-decoration: none;
}

.brand svg {
  width: 34px;
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}

.brand .lever {
  stroke: var(--blue);
  stroke-width: 3.5;
}

nav {
  display: flex;
  flex-wrap: wrap;
  flex: 1 1 auto;
}

.place {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  padding: 0 1rem;
  min-height: 52px;
  color: var(--ink);
  text-decoration: none;
  border-bottom: 4px solid var(--paper);
  border-top: 4px solid var(--paper);
}

.place.router-link-active {
  border-bottom-color: var(--blue);
  font-weight: 650;
}

.self {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  align-items: center;
  min-width: 0;
}

.line {
  padding: 0 0.75rem;
  font-weight: 600;
  color: var(--warn);
}

.self :deep(.brief) {
  display: none;
}

.plain {
  background: none;
  border: 0;
  color: var(--ink);
  min-width: 48px;
  min-height: 48px;
}

.self :deep(.who) {
  color: var(--ink);
  text-decoration: none;
}

/* A tablet upright: the places have a row of their own. */
@media (min-width: 43.8125em) and (max-width: 70em) {
  .shell-nav {
    justify-content: space-between;
  }

  nav {
    order: 3;
    flex-basis: 100%;
  }

  .place {
    flex: 1;
    justify-content: center;
    padding: 0 0.25rem;
  }
}

@media (max-width: 43.75em) {
  .shell-nav {
    padding: 0 0.75rem;
    justify-content: space-between;
  }

  nav {
    flex-wrap: nowrap;
    position: fixed;
    inset: auto 0 0;
    height: var(--nav-height);
    background: var(--paper);
    border-top: 2px solid var(--rule-strong);
    z-index: 6;
  }

  /* As wide as its word, so that six of them stand side by side in letters that can be read. */
  .place {
    flex: 1 1 auto;
    flex-direction: column;
    justify-content: center;
    gap: 0.1rem;
    min-width: 48px;
    font-size: 0.875rem;
    letter-spacing: -0.035em;
    padding: 0.3rem 0;
    border-bottom: 0;
  }

  .place.router-link-active {
    border-top-color: var(--blue);
  }

  /* One row, whatever is said in it: what stands below does not jump while an entry is on its way. */
  .shell-nav,
  .self {
    flex-wrap: nowrap;
  }

  .shell-nav:has(.line) .word {
    display: none;
  }

  .line {
    display: flex;
    align-items: center;
    min-height: 48px;
    padding: 0 0.5rem;
    white-space: nowrap;
  }

  .self :deep(.brief) {
    display: inline;
    font-weight: 650;
  }

  .self :deep(.more) {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
    white-space: nowrap;
  }
}

/* Too narrow, or letters too large, for six words: the word of the place one is at, and six signs. */
@media (max-width: 22em) {
  .place:not(.router-link-active) span {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
</style>
