<script setup lang="ts">
import { apparatusOf } from '@uvanta/core/apparatus'
import { type Refusal, workDone } from '@uvanta/core/visit'
import { computed, onMounted, reactive, ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

const store = useVisit()
const library = useLibrary()
const refusal = shallowRef<Refusal | null>(null)
const temporary = ref(false)
const form = reactive({ text: '', until: '', permittedBy: '' })
const part = reactive({ name: '', number: '', quantity: 1 })
const parts = ref<{ name: string; number?: string; quantity: number }[]>([])
const message = ref('')
/** Parts of the drawing that can be cleaned or renewed, and what was done to each. */
const serviceable = computed(() => {
  const kind = store.state.plan?.equipment.kind ?? ''
  return (apparatusOf(kind)?.elements ?? []).filter((e) => e.role !== 'cock')
})
type Service = '' | 'cleaned' | 'renewed'
const services = reactive<Record<string, Service>>({})
const chosen = computed(() =>
  Object.entries(services).flatMap(([element, service]) => (service ? [{ element, service }] : [])),
)
const repairs = computed(() => store.state.repairs)

/** Under a guide the entry is there already: it is read and, where needed, added to. */
const guided = computed(() => store.state.guide !== undefined)
onMounted(() => {
  if (!guided.value || repairs.value.length > 0 || !library.library) return
  const done = workDone(store.state, library.library)
  form.text = done.text
  parts.value = done.parts.map((p) => ({ ...p }))
  for (const s of done.services) services[s.element] = s.service
})

function addPart() {
  if (!part.name.trim()) return
  const number = part.number.trim()
  parts.value = [
    ...parts.value,
    { name: part.name.trim(), quantity: part.quantity, ...(number ? { number } : {}) },
  ]
  Object.assign(part, { name: '', number: '', quantity: 1 })
}

function keep() {
  message.value = ''
  refusal.value = null
  if (!form.text.trim()) {
    message.value = 'Write in a few words what was done.'
    return
  }
  if (temporary.value && (!form.until || !form.permittedBy.trim())) {
    message.value =
      'A temporary repair needs the date by which it is renewed, and who permitted it.'
    return
  }
  addPart()
  refusal.value = store.record('repair', {
    text: form.text.trim(),
    parts: parts.value.map((p) => ({ ...p })),
    ...(chosen.value.length > 0 ? { services: chosen.value } : {}),
    ...(temporary.value
      ? { temporary: { until: form.until, permittedBy: form.permittedBy.trim() } }
      : {}),
  })
  if (refusal.value) return
  Object.assign(form, { text: '', until: '', permittedBy: '' })
  parts.value = []
  for (const element of Object.keys(services)) services[element] = ''
  temporary.value = false
}
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
    <form novalidate @submit.prevent="keep">
      <label class="form-label" for="repair-text">What was done</label>
      <BFormTextarea
        id="repair-text"
        v-model="form.text"
        rows="2"
        placeholder="Disc of check 1 wiped clean, nothing renewed"
      />
      <fieldset v-if="serviceable.length > 0" class="services">
        <legend class="form-label">Cleaned or renewed</legend>
        <label v-for="e in serviceable" :key="e.id">
          {{ e.label }}
          <BFormSelect v-model="services[e.id]" :aria-label="`${e.label}: done`">
            <option value="">left alone</option>
            <option value="cleaned">cleaned</option>
            <option value="renewed">renewed</option>
          </BFormSelect>
        </label>
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
      <div class="part">
        <div>
          <label class="form-label" for="repair-part">Part or kit used</label>
          <BFormInput id="repair-part" v-model="part.name" />
        </div>
        <div>
          <label class="form-label" for="repair-number">Part number</label>
          <BFormInput id="repair-number" v-model="part.number" class="mono" />
        </div>
        <div>
          <label class="form-label" for="repair-quantity">Count</label>
          <BFormInput
            id="repair-quantity"
            v-model.number="part.quantity"
            class="mono"
            type="number"
            min="1"
            max="999"
          />
        </div>
        <BButton
          variant="outline-primary"
          class="add"
          :disabled="!part.name.trim()"
          @click="addPart"
          >Add</BButton
        >
      </div>
      <BFormCheckbox v-if="!guided" v-model="temporary" class="check"
        >This is a temporary repair</BFormCheckbox
      >
      <div v-if="temporary" class="part">
        <div>
          <label class="form-label" for="repair-until">Renew by</label>
          <BFormInput id="repair-until" v-model="form.until" type="date" />
        </div>
        <div>
          <label class="form-label" for="repair-permit">Permitted by</label>
          <BFormInput id="repair-permit" v-model="form.permittedBy" />
        </div>
      </div>
      <ProblemNote :message="message" :refusal="refusal" />
      <BButton type="submit" variant="outline-primary">Record the repair</BButton>
    </form>
  </div>
</template>

<style scoped>
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

form > textarea {
  width: 100%;
}

.part {
  display: grid;
  grid-template-columns: 2fr 1fr 6rem auto;
  align-items: end;
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

.check {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 48px;
}

.rows li {
  padding: 0.5rem 0;
}

@media (max-width: 700px) {
  .part {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
