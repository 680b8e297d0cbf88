<script setup lang="ts">
import { practiceAtLarge } from '@uvanta/core/guide'
import { computed, defineAsyncComponent, ref } from 'vue'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'

const MachineSheet = defineAsyncComponent(() => import('@/parts/machine/MachineSheet.vue'))

/** The machine before the van leaves: apart, with what the kit renews lit, what is settled now, what only the maker’s sheet says. */
const { run } = useGuide(() => 'prepare')
const { machine, options, partsFor } = useMachine(() => 'prepare')
const open = ref(false)
const kitParts = computed(() => [
  ...new Set((run.value?.steps ?? []).flatMap((s) => (s.renew ? partsFor(s.renew) : []))),
])
const settled = computed(() => (machine.value ? practiceAtLarge(machine.value) : []))
</script>

<template>
  <section v-if="machine" class="machine" aria-label="The machine">
    <BButton variant="outline-primary" :aria-expanded="open" @click="open = !open">{{
      open ? 'Put the drawing away' : 'See the machine apart'
    }}</BButton>
    <template v-if="open">
      <p class="soft">
        {{ machine.title }}, in the order in which it comes off; what the kit renews is lit, under
        the numbers of the kit’s list.
      </p>
      <div class="scroll-x" tabindex="0" aria-label="The drawing of the machine">
        <MachineSheet
          :machine="machine"
          :options="options"
          view="apart"
          v-bind="kitParts.length > 0 ? { lit: kitParts } : {}"
        />
      </div>
    </template>
    <ul v-if="settled.length > 0 || machine.gaps" class="rows notes">
      <li v-for="d in settled" :key="d.point">
        <strong>Practice differs</strong> {{ d.point }}. <b>Rule of the house:</b> {{ d.house }}
      </li>
      <li v-for="g in machine.gaps" :key="g">
        <strong>The maker’s sheet governs here</strong> {{ g }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.machine {
  margin-bottom: 1.25rem;
}

.notes {
  margin-top: 0.75rem;
}

.notes li {
  padding: 0.4rem 0;
}

strong {
  margin-right: 0.4rem;
}

p {
  margin: 0.75rem 0;
}
</style>
