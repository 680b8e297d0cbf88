<script setup lang="ts">
import type { Response } from '@uvanta/core/visit'
import StateMark from '@/parts/StateMark.vue'

/** The fail test as a table: what is done to it, what is wanted, what was seen. */
defineProps<{ responses: readonly Response[] }>()
</script>

<template>
  <section class="section" aria-label="Fail test">
    <h2>Fail test</h2>
    <table class="table">
      <thead>
        <tr>
          <th>Done to it</th>
          <th>Expected</th>
          <th>Seen</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in responses" :key="r.cause">
          <td>{{ r.cause }}</td>
          <td>{{ r.expected.join(', or ') }}</td>
          <td>
            <StateMark v-if="r.seen" :state="r.asExpected ? 'pass' : 'fail'" :label="r.seen" />
            <span v-else class="soft">not yet</span>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
