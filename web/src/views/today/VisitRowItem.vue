<script setup lang="ts">
import { fails } from '@uvanta/core/rules/outcome'
import type { VisitRow } from '@uvanta/contract'
import { purposeTitles } from '@uvanta/core/visit/words'
import { addDays } from '@uvanta/core/calendar'
import { computed } from 'vue'
import { timeWords, visitStateWords } from '@/composables/words'
import { useSession } from '@/stores/session'
import StateMark from '@/parts/StateMark.vue'
import VisitLine from '@/parts/VisitLine.vue'

const props = defineProps<{ visit: VisitRow; showTechnician?: boolean }>()
const session = useSession()
/** Planned, moved or handed over since yesterday, and not taken up yet. */
const changed = computed(() => {
  const { replannedAt, state } = props.visit
  const since = replannedAt && replannedAt.slice(0, 10) >= addDays(session.today, -1)
  return since && state === 'planned' ? `planned ${timeWords(replannedAt)}` : ''
})
</script>

<template>
  <li>
    <RouterLink class="row-link" :to="{ name: 'visit', params: { id: visit.id } }">
      <span class="tag mono"
        >{{ visit.equipment.tag }}<span v-if="visit.time" class="time">{{ visit.time }}</span></span
      >
      <span class="place">
        {{ visit.equipment.site
        }}<template v-if="visit.equipment.address">, {{ visit.equipment.address }}</template>
        <strong v-if="changed" class="changed">{{ changed }}</strong>
        <span v-if="visit.replanAsked" class="asked">Asks: {{ visit.replanAsked }}</span>
        <span class="soft small">
          {{ visit.equipment.kind }} {{ visit.equipment.sizeIn }} in ·
          {{ purposeTitles[visit.purpose]
          }}<template v-if="showTechnician"> · {{ visit.technician }}</template>
        </span>
      </span>
      <VisitLine
        :done="visit.done"
        :skipped="visit.skipped"
        small
        :closed="visit.state === 'signed' || visit.state === 'stopped'"
      />
      <StateMark
        :state="visit.outcome ?? visit.state"
        :label="
          visit.state === 'signed' && fails(visit.outcome)
            ? 'Failed'
            : (visitStateWords[visit.state] ?? '')
        "
      />
    </RouterLink>
  </li>
</template>

<style scoped>
.row-link {
  display: grid;
  grid-template-columns: 6.5rem minmax(0, 1fr) 168px 7rem;
  gap: 1rem;
  align-items: center;
  min-height: 64px;
  padding: 0.4rem 0;
  color: var(--ink);
  text-decoration: none;
}

.row-link:hover {
  background: var(--blue-wash);
}

.tag {
  font-size: 1.125rem;
  font-weight: 600;
}

.place span {
  display: block;
}

.time {
  display: block;
  font-size: 1rem;
  font-weight: 400;
}

.changed,
.asked {
  display: block;
  font-weight: 600;
  color: var(--warn);
}

.changed {
  font-size: 0.9375rem;
}

@media (max-width: 43.75em) {
  .row-link {
    grid-template-columns: 6.5rem minmax(0, 1fr) auto;
    gap: 0.1rem 0.5rem;
    padding: 0.6rem 0;
  }

  .place {
    grid-column: span 2;
  }

  .row-link :deep(.small-line) {
    grid-column: span 2;
  }
}
</style>
