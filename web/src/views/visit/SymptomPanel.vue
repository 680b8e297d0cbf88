<script setup lang="ts">
import { symptomFinder } from '@uvanta/core/symptoms'
import { computed, ref } from 'vue'
import EmptySheet from '@/parts/EmptySheet.vue'
import SymptomList from '@/parts/SymptomList.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** From what the customer or the technician noticed to parts, checks and guide, for the equipment of the visit. */
const store = useVisit()
const library = useLibrary()
const seen = ref('')
const find = computed(() => (library.library ? symptomFinder(library.library) : null))
const family = computed(() => store.visit?.equipment.family)
const known = computed(() =>
  library.library?.machines.some((m) => m.symptoms && m.families.includes(family.value ?? '')),
)
const found = computed(() => find.value?.(seen.value, family.value) ?? [])
</script>

<template>
  <section v-if="known" class="section no-print" aria-labelledby="symptoms-title">
    <h2 id="symptoms-title">What was noticed</h2>
    <label class="form-label" for="symptom">Find it by what is seen or heard</label>
    <BFormInput
      id="symptom"
      v-model="seen"
      type="search"
      placeholder="Drips when nothing flows, hunts, will not shut"
    />
    <div aria-live="polite">
      <template v-if="seen.trim()">
        <SymptomList v-if="found.length > 0" :found="found" />
        <EmptySheet v-else title="Nothing found"
          >Try other words for what is seen. Write it in a note in any case.</EmptySheet
        >
        <p v-if="found.length > 0" class="soft small">
          Nothing is opened or cleaned before the as-found test is on record and the equipment is
          isolated, vented and proved at zero. The maker’s sheet and the local code come first.
        </p>
      </template>
    </div>
  </section>
</template>
