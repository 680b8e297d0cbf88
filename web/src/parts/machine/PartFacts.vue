<script setup lang="ts">
import type { MachinePart } from '@uvanta/core/machine'

/** What is known of a part: names, how it is told, how it lies, what can be wrong with it and what is done about that. */
defineProps<{ part: MachinePart }>()
</script>

<template>
  <p v-if="part.also">Also: {{ part.also.join(', ') }}.</p>
  <p v-if="part.recognise">{{ part.recognise }}</p>
  <p v-if="part.way">{{ part.way }}</p>
  <p v-if="part.lubricant?.say">{{ part.lubricant.say }}</p>
  <ul v-if="part.defects">
    <li v-for="d in part.defects" :key="d.what">
      {{ d.what }}: {{ remedyWords[d.remedy] }}<template v-if="d.with">, {{ d.with }}</template>
    </li>
  </ul>
</template>

<script lang="ts">
const remedyWords = {
  clean: 'clean',
  renew: 'renew',
  'renew-assembly': 'renew the assembly',
  'renew-body': 'renew the body',
  widen: 'the job widens',
  order: 'order it, close up, come back',
  stop: 'stop',
} as const
</script>

<style scoped>
p,
ul {
  margin: 0 0 0.25rem;
}
</style>
