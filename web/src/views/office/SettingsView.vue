<script setup lang="ts">
import {
  api,
  bodyOf,
  neededForCertificates,
  type UtilityFields,
  type UtilityState,
} from '@uvanta/contract'
import { unitsOf } from '@uvanta/core/quantity'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import type { FormField } from '@/parts/form/formField'
import RecordForm from '@/parts/form/RecordForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useSession } from '@/stores/session'
import OfficeTabs from './OfficeTabs.vue'
import RuleStarters from './RuleStarters.vue'

/** What the utility is: filled in before the first certificate, and changed here afterwards. */
useTitle('Settings')
const session = useSession()
const state = shallowRef<UtilityState | null>(null)
const problem = shallowRef<ApiProblem | null>(null)
const busy = ref(false)
const saved = ref(false)
/** A form for each version, so that what was saved is what is shown. */
const shown = ref(0)

async function attempt(work: () => Promise<UtilityState>) {
  problem.value = null
  busy.value = true
  try {
    state.value = await work()
    shown.value++
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
const load = () => attempt(() => call(api.settings.read))
onMounted(load)
const body = bodyOf(api.settings.change)
async function save(fields: UtilityFields) {
  saved.value = false
  await attempt(() => call(api.settings.change, { version: state.value?.version, body: fields }))
  if (problem.value) return
  saved.value = true
  await session.load()
}

const isFirst = computed(() =>
  neededForCertificates.some((field) => state.value?.missing.includes(field)),
)
/** The form begins with what is there, and where nothing is, with the zone of this browser. */
const initial = computed(() => {
  if (!state.value) return {}
  const { version: _, missing: __, publicUrl: ___, isDemo: ____, ...fields } = state.value
  const filled = Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== ''))
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  return { timeZone: zone, ...filled } as Partial<UtilityFields>
})
const zones = Intl.supportedValuesOf('timeZone')
const units = (dimension: 'gaugePressure' | 'differential') =>
  unitsOf(dimension).map((unit) => ({ value: unit, text: unit }))
const fields: FormField<keyof UtilityFields>[] = [
  { name: 'name', label: 'Name', hint: 'As it stands on certificates.' },
  {
    name: 'authority',
    label: 'Authority',
    hint: 'Who the certificates are for.',
  },
  { name: 'address', label: 'Postal address', autocomplete: 'street-address' },
  {
    name: 'phone',
    label: 'Telephone',
    hint: 'For questions about a certificate; anybody who checks one sees it.',
    autocomplete: 'tel',
  },
  {
    name: 'certificatePrefix',
    label: 'Prefix of certificate numbers',
    hint: 'Capital letters, as EW in EW-2026-000001. Issued certificates keep theirs.',
    mono: true,
  },
  {
    name: 'timeZone',
    label: 'Time zone',
    kind: 'choice',
    options: [...new Set([...zones, 'UTC'])].map((zone) => ({ value: zone, text: zone })),
    hint: 'Legal dates follow it.',
  },
  {
    name: 'gaugePressureUnit',
    label: 'Unit of pressures',
    kind: 'choice',
    options: units('gaugePressure'),
  },
  {
    name: 'differentialUnit',
    label: 'Unit of differentials',
    kind: 'choice',
    options: units('differential'),
  },
  {
    name: 'zoneWithin',
    label: 'Tolerance of the zone, min',
    kind: 'number',
    hint: 'A device whose clock is set to a zone further away has its times marked.',
  },
]
</script>

<template>
  <div>
    <OfficeTabs />
    <h1>Settings</h1>
    <ProblemNote :problem="problem" @retry="load" />
    <template v-if="state">
      <div v-if="isFirst && !state.isDemo" class="caution">
        <p>
          <strong>No certificates yet.</strong> Certificates carry what is entered here. Until every
          entry is made none is issued; visits can be planned and recorded meanwhile.
        </p>
      </div>
      <p v-else-if="state.isDemo" class="soft">
        This is the demo: its settings are Larkhaven’s. Your own installation starts in another
        directory.
      </p>
      <p v-else class="soft">
        Certificates issued from now on carry a change. Those that were issued stay as they are.
      </p>
      <div v-if="state.missing.includes('publicUrl')" class="caution">
        <p>
          <strong>The public address is missing.</strong> The QR code of a certificate leads to it.
          Set <span class="mono">UVANTA_PUBLIC_URL</span> where Uvanta is installed, and restart it.
          At present it is <span class="mono">{{ state.publicUrl }}</span>.
        </p>
      </div>
      <p v-if="saved" class="saved" role="status">
        <StateMark
          state="pass"
          :label="session.isSetUp ? 'Saved. Certificates can be issued.' : 'Saved.'"
        />
      </p>
      <RecordForm
        v-if="!state.isDemo"
        :key="shown"
        class="sheet"
        :fields="fields"
        :schema="body"
        :initial="initial"
        action="Save"
        :busy="busy"
        @submit="save"
        @cancel="load"
      />
      <RuleStarters
        v-if="!state.isDemo && state.certificatePrefix"
        :authority="state.authority"
        :utility="state.name"
      />
      <dl v-if="state.isDemo" class="facts">
        <template v-for="f in fields" :key="f.name">
          <dt>{{ f.label }}</dt>
          <dd>{{ state[f.name] }}</dd>
        </template>
      </dl>
    </template>
  </div>
</template>

<style scoped>
.sheet {
  max-width: 60rem;
  margin-top: 1.25rem;
}

.caution p {
  margin: 0;
}

.facts {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, max-content));
  gap: 0.5rem 1.5rem;
}

.saved {
  margin: 1rem 0 0;
}

dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
