<script setup lang="ts">
import { computed } from 'vue'
import DialogSheet from '@/parts/DialogSheet.vue'
import { saveToFile } from '@/stores/saveToFile'
import { useVisit } from '@/stores/visit'
import { eventWords } from '@/composables/eventWords'
import { timeWords } from '@/composables/words'

/** Two people wrote to one visit: shows both sides and lets the person decide about his own. */
const store = useVisit()
const theirs = computed(
  () =>
    store.conflict?.theirs.filter((e) => !store.conflict?.ours.some((o) => o.id === e.id)) ?? [],
)
const ours = computed(() => store.conflict?.ours ?? [])
/** Nothing goes without a copy of it. */
function withdraw() {
  saveToFile('uvanta-withdrawn-entries.json', JSON.stringify(ours.value, null, 2))
  return store.resolveConflict(false)
}
const line = (event: object) =>
  eventWords({ personId: '', personName: '', ...event } as never) ?? 'a step'
</script>

<template>
  <DialogSheet
    :model-value="store.conflict !== null"
    title="Someone wrote here meanwhile"
    no-close-on-backdrop
    no-close-on-esc
    no-header-close
    no-footer
    size="lg"
  >
    <div class="sides">
      <section aria-labelledby="theirs-title">
        <h3 id="theirs-title">Already in the log</h3>
        <ul class="rows">
          <li v-for="e in theirs" :key="e.id">
            {{ line(e) }}
            <span class="soft small">{{ e.personName }}, {{ timeWords(e.deviceTime) }}</span>
          </li>
        </ul>
      </section>
      <section aria-labelledby="ours-title">
        <h3 id="ours-title">Yours, not sent yet</h3>
        <ul class="rows">
          <li v-for="e in ours" :key="e.id">
            {{ line(e) }} <span class="soft small">{{ timeWords(e.deviceTime) }}</span>
          </li>
        </ul>
      </section>
    </div>
    <div class="actions mt-3">
      <BButton variant="primary" @click="store.resolveConflict(true)"
        >Keep mine after theirs</BButton
      >
      <BButton variant="outline-danger" @click="withdraw">Save mine to a file and withdraw</BButton>
    </div>
  </DialogSheet>
</template>

<style scoped>
/* One beside the other where there is room, each with its times. */
.sides {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(18rem, 100%), 1fr));
  gap: 1rem 1.5rem;
}

li {
  padding: 0.4rem 0;
}

li .small {
  display: block;
}
</style>
