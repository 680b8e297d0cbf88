<script setup lang="ts">
import { api } from 'virtual:api'
import { purposeTitles, stationTitles } from '@uvanta/core/visit'
import { computed } from 'vue'
import { fileUrl } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import { dateWords, timeWords } from '@/composables/words'
import CertificateSheet from '@/parts/CertificateSheet.vue'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { recordCaution } from './bench/recordCaution'
import { useLogEntries } from './bench/useLogEntries'
import { useVisitDocument } from './bench/useVisitDocument'

/** The record of a visit on paper: whose, where, what was read, every entry with its day, every photograph. */
const props = defineProps<{ id: string }>()
const { store, problem, load, payload } = useVisitDocument(() => props.id)
useTitle(() => (store.visit ? `Record of ${store.visit.equipment.tag}` : undefined))
const entries = useLogEntries()
const cells = computed(() => {
  const visit = store.visit
  if (!visit) return []
  const e = visit.equipment
  return [
    { label: 'Site', value: `${e.site}, ${e.address}`, span: 3 },
    { label: 'Position', value: e.position, span: 2 },
    { label: 'Kind', value: `${e.kind} ${e.sizeIn} in · ${e.service}`, span: 2 },
    { label: 'Serial', value: e.serial, mono: true },
    { label: 'Technician', value: visit.technician, span: 2 },
    { label: 'Planned for', value: dateWords(visit.plannedOn), span: 2 },
    {
      label: 'State',
      span: 2,
      value: store.state.stopped ? `stopped: ${store.state.stopped.reason}` : 'still open',
    },
  ]
})
const caution = computed(() => recordCaution(store.state))
const pictureOf = (photo: string) => fileUrl(api.visits.photo, { id: props.id, photo })
const print = () => window.print()
</script>

<template>
  <div>
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="!store.visit && !problem" what="the visit" />
    <template v-if="store.visit">
      <p v-if="caution" class="caution" role="status">{{ caution }}</p>
      <CertificateSheet v-if="payload" :payload="payload" />
      <TitleBlock
        v-else
        :title="`Record of ${store.visit.equipment.tag}`"
        :subtitle="purposeTitles[store.visit.purpose]"
        :cells="cells"
      />
      <div class="actions no-print mt-3">
        <BButton variant="primary" @click="print">Print</BButton>
        <LinkButton :to="{ name: 'visit', params: { id } }">Back to the visit</LinkButton>
      </div>
      <section class="section">
        <h2>Every entry, in its order</h2>
        <table class="table entries">
          <thead>
            <tr>
              <th>When</th>
              <th>What</th>
              <th>Who</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="{ event, words, correction, now } in entries" :key="event.id">
              <td class="mono when">{{ timeWords(event.deviceTime) }}</td>
              <td>
                <s v-if="correction">{{ words }}</s>
                <template v-else>{{ words }}</template>
                <template v-if="correction">
                  <strong> {{ now ?? 'withdrawn' }}</strong> – {{ correction.why }} ({{
                    correction.recordedBy
                  }})
                </template>
              </td>
              <td>{{ event.seq ? event.personName : 'waits to be sent' }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <section v-if="store.state.photos.length > 0" class="section">
        <h2>Photographs</h2>
        <div class="pictures">
          <figure v-for="p in store.state.photos" :key="p.photoId">
            <img :src="pictureOf(p.photoId)" :alt="p.caption" />
            <figcaption>
              {{ p.caption }}
              <span class="soft"
                >{{ stationTitles[p.station] }}, {{ timeWords(p.recordedAt) }}</span
              >
            </figcaption>
          </figure>
        </div>
      </section>
    </template>
  </div>
</template>

<style scoped>
.when {
  white-space: nowrap;
}

.entries td:nth-child(2) {
  overflow-wrap: anywhere;
}

.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(16rem, 1fr));
  gap: 1rem;
}

figure {
  margin: 0;
}

img {
  width: 100%;
  border: 2px solid var(--rule-strong);
}

figcaption .soft {
  display: block;
}

@media (max-width: 43.75em) {
  .when {
    white-space: normal;
  }
}
</style>
