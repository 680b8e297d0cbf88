<script setup lang="ts">
import { apparatusOf } from '@uvanta/core/apparatus'
import { line, localDate, prose } from '@uvanta/core/schema'
import { type PayloadOf, type Notice, workDone } from '@uvanta/core/visit'
import { computed, onMounted, reactive, ref, shallowRef, useTemplateRef } from 'vue'
import { boolean, object, type Schema } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { keepTyped } from '@/parts/form/keepTyped'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import PartEntry from './PartEntry.vue'

/** What else is true once the repair is on record, where its station ends with it. */
const props = defineProps<{ ends?: string | undefined }>()
const store = useVisit()
const library = useLibrary()
const refusal = shallowRef<Notice | null>(null)
const parts = ref<PayloadOf<'repair'>['parts']>([])
const entered = useTemplateRef('entered')
/** Parts of the drawing that can be cleaned or renewed, and what was done to each. */
const serviceable = computed(() => {
  const kind = store.state.plan?.equipment.kind ?? ''
  return (apparatusOf(kind)?.elements ?? []).filter((e) => e.role !== 'cock')
})
const SERVICES = [
  { value: 'cleaned', text: 'cleaned' },
  { value: 'renewed', text: 'renewed' },
] as const
type Service = (typeof SERVICES)[number]['value']
const services = reactive<Record<string, Service | undefined>>({})
const chosen = computed(() =>
  Object.entries(services).flatMap(([element, service]) => (service ? [{ element, service }] : [])),
)
const repairs = computed(() => store.state.repairs)

const temporarily = { is: true, then: (s: Schema) => s.required('is missing') }
const { values, submit, reset } = useEntry(
  object({
    text: prose(4000).required('is missing: say in a few words'),
    temporary: boolean().required(),
    until: localDate().when('temporary', temporarily as never),
    permittedBy: line(120).when('temporary', temporarily as never),
  }),
  { temporary: false },
  async ({ text, temporary, until, permittedBy }) => {
    refusal.value = null
    if (!(await entered.value?.take())) return true
    const repair = {
      text: text.trim(),
      parts: parts.value.map((p) => ({ ...p })),
      ...(chosen.value.length > 0 ? { services: chosen.value } : {}),
      ...(temporary && until && permittedBy
        ? { temporary: { until, permittedBy: permittedBy.trim() } }
        : {}),
    }
    refusal.value = props.ends
      ? store.recordAll([
          ['repair', repair],
          ['station-done', { station: 'rebuild' }],
        ])
      : store.record('repair', repair)
    // What keeps the station open keeps nobody from recording the repair.
    if (refusal.value && props.ends) refusal.value = store.record('repair', repair)
    if (!refusal.value) {
      clear()
      more.value = false
    }
    return refusal.value
  },
  `${store.visit?.id}/repair`,
)
keepTyped(
  `${store.visit?.id}/repair-parts`,
  () => ({ parts: parts.value, services: { ...services } }),
  (kept) => {
    parts.value = kept.parts
    Object.assign(services, kept.services)
  },
)
function clear() {
  parts.value = []
  for (const element of Object.keys(services)) services[element] = undefined
  const values = { text: undefined, temporary: false, until: undefined, permittedBy: undefined }
  reset({ values: values as never })
}

/** Under a guide the entry is there already: it is read and, where needed, added to. */
const guided = computed(() => store.state.guide !== undefined)
const more = ref(false)
const writing = computed(() => !guided.value || repairs.value.length === 0 || more.value)
onMounted(() => {
  if (!guided.value || repairs.value.length > 0 || !library.library || values.text) return
  const done = workDone(store.state, library.library)
  reset({ values: { text: done.text, temporary: false } })
  parts.value = done.parts.map((p) => ({ ...p }))
  for (const s of done.services) services[s.element] = s.service
})
</script>

<template>
  <div class="repair">
    <ul v-if="repairs.length > 0" class="rows">
      <li v-for="r in repairs" :key="r.eventId">
        {{ r.text }}
        <span v-for="p in r.parts" :key="p.name" class="soft small">
          · {{ p.quantity }} × {{ p.name }} {{ p.number }}</span
        >
        <strong v-if="r.temporary" class="small">
          · temporary, renew by {{ r.temporary.until }}</strong
        >
      </li>
    </ul>
    <BButton v-if="!writing" variant="link" class="more" @click="more = true">Add to it</BButton>
    <form v-else novalidate @submit.prevent="submit">
      <EntryField
        name="text"
        class="text"
        label="What was done"
        kind="lines"
        :rows="2"
        placeholder="Disc of check 1 wiped clean, nothing renewed"
      />
      <fieldset v-if="serviceable.length > 0" class="services">
        <legend class="form-label">Cleaned or renewed</legend>
        <EntryField
          v-for="e in serviceable"
          :key="e.id"
          v-model="services[e.id]"
          :label="e.label"
          kind="choice"
          :options="SERVICES"
          placeholder="left alone"
        />
      </fieldset>
      <ul v-if="parts.length > 0" class="rows parts" aria-label="Parts used">
        <li v-for="(p, n) in parts" :key="n">
          <span
            ><span class="mono">{{ p.quantity }} ×</span> {{ p.name }}
            <span class="mono soft">{{ p.number }}</span></span
          >
          <BButton
            size="sm"
            variant="link"
            :aria-label="`Remove ${p.name}`"
            @click="parts = parts.filter((_, other) => other !== n)"
            >Remove</BButton
          >
        </li>
      </ul>
      <PartEntry ref="entered" @used="parts = [...parts, $event]" />
      <EntryField
        v-if="!guided"
        name="temporary"
        label="This is a temporary repair"
        kind="switch"
      />
      <div v-if="values.temporary" class="temporary">
        <EntryField name="until" label="Renew by" kind="date" mono />
        <EntryField name="permittedBy" label="Permitted by" />
      </div>
      <ProblemNote :refusal="refusal" />
      <BButton type="submit" :variant="guided && !more ? 'primary' : 'outline-primary'" size="lg"
        >Record the repair<small v-if="ends" class="ends">{{ ends }}</small></BButton
      >
    </form>
  </div>
</template>

<style scoped>
.ends {
  display: block;
  font-weight: 400;
}

.services {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.4rem 0.75rem;
  width: 100%;
}

.services legend {
  float: none;
  font-size: 1rem;
  grid-column: 1 / -1;
  margin: 0;
}

form {
  display: grid;
  gap: 0.75rem;
  margin-top: 0.75rem;
  justify-items: start;
}

.text {
  width: 100%;
}

.temporary {
  display: grid;
  grid-template-columns: 1fr 2fr;
  gap: 0.75rem;
  width: 100%;
}

.parts {
  width: 100%;
}

.parts li {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

.rows li {
  padding: 0.5rem 0;
}
</style>
