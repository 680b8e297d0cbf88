<script setup lang="ts">
import { fails } from '@uvanta/core/rules'
import {
  advisoriesOf,
  type CertificatePayload,
  CHECK_WORDS,
  checkOf,
  documentTitle,
  instrumentsOf,
  keyReadings,
  linePressureWords,
  runOf,
} from '@uvanta/core/certificate'
import { computed } from 'vue'
import { dateWords, outcomeWords, timeWords } from '@/composables/words'
import EarlierTests from './EarlierTests.vue'
import KeyReadings from './KeyReadings.vue'
import StateMark from './StateMark.vue'
import TitleBlock from './TitleBlock.vue'
import VerdictList from './VerdictList.vue'

/** A certificate as it is read on a screen; the same for the office and for a stranger. */
const props = defineProps<{ payload: CertificatePayload }>()
const found = computed(() => runOf(props.payload.asFound))
const left = computed(() => runOf(props.payload.asLeft))
const final = computed(() => left.value ?? found.value)
const check = computed(() => checkOf(props.payload))
const checks = computed(() =>
  [
    { when: 'As found', part: props.payload.asFound },
    { when: 'As left', part: props.payload.asLeft },
  ].flatMap(({ when, part }) => (part && 'checked' in part ? [{ when, ...part }] : [])),
)
const advisory = computed(() => advisoriesOf(props.payload))
const keys = computed(() => keyReadings(props.payload))
const cells = computed(() => {
  const { equipment: e, tester } = props.payload
  const f = final.value
  const gauges = f ? instrumentsOf(f) : []
  return [
    { label: 'Equipment', value: e.tag, mono: true },
    { label: 'Serial', value: e.serial, mono: true },
    { label: 'Kind', value: `${e.kind} ${e.sizeIn} in · ${e.service}` },
    { label: 'Site', value: `${e.site}, ${e.address}`, span: 2 },
    { label: 'Position', value: e.position, span: 2 },
    { label: 'Tester', value: tester.name },
    ...(tester.licence ? [{ label: 'Licence', value: tester.licence, mono: true }] : []),
    ...(f
      ? [
          {
            label: 'Gauge',
            value: gauges.map((g) => `${g.tag}, ${g.serial}`).join('; ') || '–',
            mono: true,
          },
          {
            label: 'In calibration',
            value:
              gauges
                .map((g) => `${dateWords(g.calibratedOn)} to ${dateWords(g.calibrationUntil)}`)
                .join(', ') || '–',
          },
          { label: 'Line pressure', value: linePressureWords(f), mono: true },
        ]
      : [{ label: 'Document', value: documentTitle(props.payload) }]),
    { label: 'Issued', value: timeWords(props.payload.issuedAt) },
  ]
})
</script>

<template>
  <div>
    <TitleBlock
      :title="payload.number"
      :subtitle="
        payload.authority ? `${payload.utility}, under ${payload.authority}` : payload.utility
      "
      :cells="cells"
    >
      <template v-if="$slots.actions" #actions><slot name="actions" /></template>
    </TitleBlock>
    <div class="outcome">
      <StateMark
        class="verdict-mark"
        :state="payload.outcome"
        :label="check ? CHECK_WORDS[check.checked] : `${outcomeWords[payload.outcome]}${advisory}`"
      />
      <p>
        {{ payload.reason }}
        <strong v-if="payload.nextDueOn"
          >Next test due {{ dateWords(payload.nextDueOn)
          }}<template v-if="payload.lawfulUntil"
            >, lawful until {{ dateWords(payload.lawfulUntil) }}</template
          >.</strong
        >
        <strong v-if="payload.repairBy">
          {{ fails(payload.outcome) ? 'Repair by' : 'Temporary repair: renew by' }}
          {{ dateWords(payload.repairBy) }}.</strong
        >
      </p>
    </div>
    <KeyReadings v-if="keys.length > 0" :keys="keys" />
    <div class="runs">
      <VerdictList
        v-if="found"
        :verdict="found.verdict"
        :title="`As found, ${dateWords(found.date)}`"
      />
      <p v-else-if="'impossible' in payload.asFound" class="caution">
        As-found not taken: {{ payload.asFound.impossible }}
      </p>
      <VerdictList
        v-if="left"
        :verdict="left.verdict"
        :title="`As left, ${dateWords(left.date)}`"
      />
      <section v-for="c in checks" :key="c.when">
        <h2>{{ c.when }}, {{ dateWords(c.date) }}</h2>
        <p>
          <strong>{{ CHECK_WORDS[c.checked] }}.</strong> {{ c.text }}
        </p>
        <ul v-if="c.readings.length > 0" class="rows">
          <li v-for="r in c.readings" :key="r.title" class="seen">
            {{ r.title }} <span class="mono">{{ r.value }}</span>
          </li>
        </ul>
      </section>
    </div>
    <EarlierTests v-if="payload.earlier" :earlier="payload.earlier" />
    <section v-if="payload.work.length > 0" class="section">
      <h2>Work done</h2>
      <ul class="rows">
        <li v-for="(w, n) in payload.work" :key="n" class="work">
          {{ w.text }}
          <span v-for="p in w.parts" :key="p.name" class="soft">
            · {{ p.quantity }} × {{ p.name }} {{ p.number }}</span
          >
          <strong v-if="w.temporary">
            · temporary, permitted by {{ w.temporary.permittedBy }}, renew by
            {{ dateWords(w.temporary.until) }}</strong
          >
        </li>
      </ul>
    </section>
    <section v-if="payload.corrections?.length || payload.clock" class="section">
      <h2>About this record</h2>
      <ul class="rows">
        <li v-for="(c, n) in payload.corrections ?? []" :key="n" class="work">
          {{ c.what }}: {{ c.was }} → {{ c.is ?? 'withdrawn' }}.
          <span class="soft">{{ c.why }} Corrected by {{ c.by }}, {{ timeWords(c.at) }}.</span>
        </li>
        <li v-if="payload.clock" class="work">{{ payload.clock }}</li>
      </ul>
    </section>
    <section class="section signature">
      <p v-if="!payload.signature" class="soft">
        Reissued from the corrected record; not signed anew by hand.
      </p>
      <svg
        v-else
        viewBox="0 0 400 120"
        role="img"
        :aria-label="`Signature of ${payload.tester.name}`"
      >
        <path :d="payload.signature" />
      </svg>
      <p>
        {{ payload.tester.name }}<br /><span class="soft small"
          >{{ payload.signature ? 'Signed' : 'First signed' }}
          {{ timeWords(payload.signedAt) }}</span
        >
      </p>
      <p class="soft small statement">{{ payload.statement }}</p>
    </section>
  </div>
</template>

<style scoped>
.outcome {
  display: flex;
  gap: 1.5rem;
  align-items: center;
  margin-bottom: 1.25rem;
}

.outcome p {
  margin: 0;
}

.verdict-mark {
  font-size: 1.75rem;
  font-weight: 700;
}

.runs {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
  gap: 2rem;
}

.work {
  padding: 0.5rem 0;
}

.seen {
  display: flex;
  justify-content: space-between;
  padding: 0.4rem 0;
}

.signature {
  display: grid;
  grid-template-columns: 14rem auto 1fr;
  gap: 1.5rem;
  align-items: center;
}

.signature svg {
  width: 100%;
  border-bottom: 1px solid var(--rule-strong);
}

.signature path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}

.statement {
  max-width: 36rem;
}

@media (max-width: 43.75em) {
  .outcome,
  .signature {
    display: block;
  }
}
</style>
