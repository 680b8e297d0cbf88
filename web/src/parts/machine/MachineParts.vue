<script setup lang="ts">
import { type Machine, numbersOf, partsOf } from '@uvanta/core/machine'
import { computed, ref } from 'vue'
import MachineSheet from './MachineSheet.vue'
import PartFacts from './PartFacts.vue'

/** The sheet of a machine with its list of parts: a part that is pressed, here or there, is lit in both. */
const props = defineProps<{ machine: Machine; options: readonly string[] }>()
const view = ref<'closed' | 'apart'>('closed')
const lit = ref<string | null>(null)
const numbers = computed(() => numbersOf(props.machine))
const parts = computed(() => partsOf(props.machine, props.options))
const pick = (id: string) => (lit.value = lit.value === id ? null : id)
</script>

<template>
  <div class="sheet">
    <div class="drawing">
      <div class="views no-print" role="group" aria-label="How it is drawn">
        <BButton
          variant="outline-primary"
          :aria-pressed="view === 'closed'"
          :pressed="view === 'closed'"
          @click="view = 'closed'"
          >In section</BButton
        >
        <BButton
          variant="outline-primary"
          :aria-pressed="view === 'apart'"
          :pressed="view === 'apart'"
          @click="view = 'apart'"
          >Apart</BButton
        >
      </div>
      <div class="scroll-x" tabindex="0" aria-label="The drawing">
        <MachineSheet
          :machine="machine"
          :options="options"
          :view="view"
          v-bind="lit ? { lit: [lit] } : {}"
          @pick="pick"
        />
      </div>
      <MachineSheet
        class="on-paper"
        :machine="machine"
        :options="options"
        :view="view === 'closed' ? 'apart' : 'closed'"
      />
    </div>
    <ol class="parts" aria-label="Parts, in the order in which they come off">
      <li v-for="p in parts" :key="p.id" :value="numbers.get(p.id)" :class="{ lit: lit === p.id }">
        <button type="button" :aria-pressed="lit === p.id" @click="pick(p.id)">
          <span class="mono no">{{ numbers.get(p.id) }}</span>
          <span
            >{{ p.title }}<span v-if="p.count && p.count > 1" class="soft"> × {{ p.count }}</span
            ><span v-if="p.soft" class="trait">soft</span
            ><span v-if="p.loose" class="trait">loose</span></span
          >
        </button>
        <div v-if="lit === p.id" class="more soft">
          <PartFacts :part="p" />
        </div>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(16rem, 2fr);
  gap: 1rem 2rem;
  align-items: start;
}

.views {
  display: flex;
  gap: 0.5rem;
  margin-bottom: 0.75rem;
}

.parts {
  list-style: none;
  padding: 0;
  margin: 0;
}

.parts > li {
  border-bottom: 1px solid var(--rule);
}

.parts button {
  display: flex;
  gap: 0.75rem;
  width: 100%;
  min-height: 48px;
  padding: 0.5rem 0;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  align-items: center;
}

.no {
  min-width: 1.75rem;
  text-align: right;
}

.lit > button {
  font-weight: 600;
  color: var(--blue);
}

.trait {
  margin-left: 0.5rem;
  padding: 0 0.35rem;
  border: 1px solid var(--rule);
  font-size: 0.875rem;
  font-weight: 400;
  color: var(--ink-soft);
}

.more {
  padding: 0 0 0.75rem 2.5rem;
}

@media (min-width: 43.8125em) {
  /* The drawing stays beside the list, however long that is. */
  .drawing {
    position: sticky;
    top: 4.5rem;
  }
}

.on-paper {
  display: none;
}

@media print {
  .sheet {
    display: block;
  }

  .drawing {
    position: static;
  }

  .scroll-x {
    overflow: visible;
  }

  .on-paper {
    display: block;
  }

  .parts {
    columns: 3;
    margin-top: 1rem;
  }

  .parts button {
    min-height: 0;
    padding: 0.15rem 0;
  }
}

@media (max-width: 43.75em) {
  .sheet {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
