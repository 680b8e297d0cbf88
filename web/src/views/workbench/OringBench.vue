<script setup lang="ts">
import { identifyOring, type RingIdentity } from '@uvanta/core/craft'
import { roundTo } from '@uvanta/core/quantity'
import { computed, ref } from 'vue'
import AttachResult from './AttachResult.vue'

/** Which standard ring this is, from what a caliper says. */
const inside = ref('18.6')
const section = ref('')
const numberOf = (text: string) => (/^\d+(\.\d+)?$/.test(text.trim()) ? Number(text) : undefined)

const identity = computed<RingIdentity | null>(() => {
  const insideMm = numberOf(inside.value)
  const sectionMm = numberOf(section.value)
  if (insideMm === undefined && sectionMm === undefined) return null
  return identifyOring({
    ...(insideMm === undefined ? {} : { insideMm }),
    ...(sectionMm === undefined ? {} : { sectionMm }),
  })
})
</script>

<template>
  <section class="section" aria-labelledby="oring-title">
    <h2 id="oring-title">O-ring</h2>
    <div class="entry">
      <label for="oring-inside">Inside diameter</label>
      <label for="oring-section">Section</label>
      <BFormInput
        id="oring-inside"
        v-model="inside"
        class="mono"
        inputmode="decimal"
        placeholder="mm"
      />
      <BFormInput
        id="oring-section"
        v-model="section"
        class="mono"
        inputmode="decimal"
        placeholder="mm"
      />
    </div>
    <p v-if="!identity" class="soft">
      Measure the inside diameter, or the section, or both, in mm.
    </p>
    <template v-else>
      <p v-if="identity.sure" class="caution">{{ identity.sure }}</p>
      <p v-if="identity.measureNext" class="caution">{{ identity.measureNext }}</p>
      <table class="table">
        <thead>
          <tr>
            <th>Size</th>
            <th>Inside, mm</th>
            <th>Section, mm</th>
            <th>Off</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="m in identity.matches" :key="m.dash" :class="{ fits: m.fits }">
            <td class="mono">-{{ m.dash }}</td>
            <td class="mono">{{ roundTo(m.insideMm, 2) }} ± {{ roundTo(m.insideTolMm, 2) }}</td>
            <td class="mono">{{ roundTo(m.sectionMm, 2) }} ± {{ roundTo(m.sectionTolMm, 2) }}</td>
            <td>{{ m.fits ? 'fits' : `${roundTo(m.off, 1)} tolerances` }}</td>
          </tr>
        </tbody>
      </table>
      <AttachResult
        v-if="identity.matches[0]"
        :result="{
          computation: 'identify-oring',
          title: 'O-ring',
          says: `Measured ${inside || '–'} × ${section || '–'} mm: -${identity.matches[0].dash}`,
        }"
      />
    </template>
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 9rem 9rem;
  gap: 0.25rem 0.75rem;
  margin-bottom: 0.75rem;
}

label {
  font-weight: 600;
}

.fits td {
  font-weight: 600;
}
</style>
