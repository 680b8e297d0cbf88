<script setup lang="ts">
import { type Surface, threads, torqueSetting } from '@uvanta/core/craft'
import { roundTo } from '@uvanta/core/quantity'
import { computed, reactive } from 'vue'
import AttachResult from './AttachResult.vue'
import { attempt } from './attempt'

/** What the wrench is set to, and whether the figure can be right. */
const form = reactive({
  value: '80',
  unit: 'N·m',
  thread: 'M12',
  statedFor: 'dry' as Surface,
  surface: 'dry' as Surface,
  wrenchMm: '400',
  extensionMm: '0',
  angle: '0',
})
/** Pressures stand in the list on purpose: the sheet may say so, and then it is explained. */
const UNITS = ['N·m', 'lbf·in', 'lbf·ft', 'psi', 'lb/in', 'kPa'] as const

const outcome = computed(() =>
  attempt(() =>
    torqueSetting({
      value: Number(form.value),
      unit: form.unit,
      ...(form.thread ? { thread: form.thread } : {}),
      statedFor: form.statedFor,
      surface: form.surface,
      wrenchM: Number(form.wrenchMm) / 1000,
      extensionM: Number(form.extensionMm) / 1000,
      angleDeg: Number(form.angle),
    }),
  ),
)
</script>

<template>
  <section class="section" aria-labelledby="torque-title">
    <h2 id="torque-title">Torque wrench</h2>
    <div class="entry">
      <label>Sheet says <BFormInput v-model="form.value" class="mono" inputmode="decimal" /></label>
      <label
        >Unit
        <BFormSelect v-model="form.unit" aria-label="Unit of the torque">
          <option v-for="u in UNITS" :key="u">{{ u }}</option>
        </BFormSelect>
      </label>
      <label
        >Thread
        <BFormSelect v-model="form.thread">
          <option value="">not known</option>
          <option v-for="t in threads" :key="t.name">{{ t.name }}</option>
        </BFormSelect>
      </label>
      <label
        >Stated for
        <BFormSelect v-model="form.statedFor">
          <option>dry</option>
          <option>lubricated</option>
        </BFormSelect>
      </label>
      <label
        >The thread is
        <BFormSelect v-model="form.surface">
          <option>dry</option>
          <option>lubricated</option>
        </BFormSelect>
      </label>
      <label
        >Wrench, mm <BFormInput v-model="form.wrenchMm" class="mono" inputmode="decimal"
      /></label>
      <label
        >Extension, mm <BFormInput v-model="form.extensionMm" class="mono" inputmode="decimal"
      /></label>
      <label
        >Its angle, ° <BFormInput v-model="form.angle" class="mono" inputmode="decimal"
      /></label>
    </div>
    <p v-if="'says' in outcome" class="caution" role="alert">{{ outcome.says }}</p>
    <template v-else>
      <p class="answer">
        <span class="mono">{{ roundTo(outcome.answer.setting, 1) }}</span>
        {{ outcome.answer.unit }} on the wrench
      </p>
      <p v-if="outcome.answer.preloadKn !== undefined" class="soft small">
        Preload about {{ roundTo(outcome.answer.preloadKn, 1) }} kN,
        {{ Math.round(outcome.answer.stressMpa ?? 0) }} MPa in the thread; K 0.20 dry, 0.15
        lubricated.
      </p>
      <p v-for="q in outcome.answer.questions" :key="q" class="caution">{{ q }}</p>
      <AttachResult
        :result="{
          computation: 'torque-setting',
          title: 'Torque wrench',
          says: `${form.value} ${form.unit} ${form.thread ? `on ${form.thread}` : 'on a thread not named'}, ${form.surface}: ${roundTo(outcome.answer.setting, 1)} ${outcome.answer.unit} on the wrench`,
        }"
      />
    </template>
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8.5rem, 1fr));
  gap: 0.6rem;
  margin-bottom: 0.75rem;
}

label {
  font-weight: 600;
}

.answer .mono {
  font-size: 2.5rem;
  font-weight: 600;
}
</style>
