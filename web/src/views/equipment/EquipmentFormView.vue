<script setup lang="ts">
import { api, bodyOf, type Equipment, type Site } from '@uvanta/contract'
import { services } from '@uvanta/core/catalogue'
import { watchDebounced } from '@vueuse/core'
import { v7 as uuidv7 } from 'uuid'
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import type * as yup from 'yup'
import { ApiProblem, call } from '@/api/client'
import { queryFrom } from '@/api/queryFrom'
import { useTitle } from '@/composables/useTitle'
import ProblemNote from '@/parts/ProblemNote.vue'
import EntryField from '@/parts/form/EntryField.vue'
import type { FormField } from '@/parts/form/formField'
import RecordForm from '@/parts/form/RecordForm.vue'
import { useLibrary } from '@/stores/library'
import NewSite from './NewSite.vue'

type SiteOption = Pick<Site, 'id' | 'name' | 'address'>
const props = defineProps<{ id?: string }>()
const library = useLibrary()
const router = useRouter()
const sites = ref<SiteOption[]>([])
const current = ref<Equipment | null>(null)
const ready = ref(false)
const busy = ref(false)
const problem = ref<ApiProblem | null>(null)
const addingSite = ref(false)
const newId = uuidv7()
const form = useTemplateRef<{ forget: () => void }>('form')
useTitle(() => (props.id ? `Change ${current.value?.tag ?? ''}` : 'Add equipment'))

/** Where there are more sites than one chooses from, words bring theirs to the top. */
const MANY = 40
const words = ref('')
/** What was offered before stays: one of them may be chosen. */
const offer = (first: readonly SiteOption[]) => {
  sites.value = [...first, ...sites.value.filter((s) => first.every((f) => f.id !== s.id))]
}
async function findSites() {
  offer((await call(api.register.listSites, { query: queryFrom({ q: words.value }) })).items)
}
watchDebounced(words, findSites, { debounce: 250 })

async function load() {
  problem.value = null
  try {
    await Promise.all([findSites(), library.load()])
    if (props.id) {
      current.value = await call(api.register.readEquipment, { params: { id: props.id } })
      offer([current.value.site])
    }
    ready.value = true
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
onMounted(load)

const options = (list: readonly string[]) => list.map((v) => ({ value: v, text: v }))
const body = bodyOf(api.register.createEquipment)
type Entered = yup.InferType<typeof body>
const fields = computed<FormField<Extract<keyof Entered, string>>[]>(() => {
  const families = library.library?.families ?? []
  return [
    { name: 'tag', label: 'Tag', mono: true },
    {
      name: 'siteId',
      label: 'Site',
      kind: 'choice' as const,
      options: sites.value.map((s) => ({ value: s.id, text: `${s.name}, ${s.address}` })),
    },
    {
      name: 'family',
      label: 'Family',
      kind: 'choice' as const,
      options: families.map((f) => ({ value: f.id, text: f.title })),
    },
    {
      name: 'kind',
      label: 'Kind',
      kind: 'choice' as const,
      options: options([...new Set(families.flatMap((f) => f.kinds))].sort()),
    },
    { name: 'sizeIn', label: 'Size, in', mono: true },
    { name: 'serial', label: 'Serial', mono: true },
    { name: 'maker', label: 'Maker' },
    { name: 'model', label: 'Model' },
    {
      name: 'specSheet',
      label: 'Spec sheet',
      kind: 'choice' as const,
      options: (library.library?.specSheets ?? []).map((s) => ({
        value: s.id,
        text: `${s.maker} ${s.model}`,
      })),
    },
    { name: 'service', label: 'Service', kind: 'choice' as const, options: options(services) },
    {
      name: 'programme',
      label: 'Programme',
      kind: 'choice' as const,
      options: (library.library?.programmes ?? []).map((p) => ({ value: p.id, text: p.title })),
    },
    {
      name: 'dueOn',
      label: 'Next due',
      kind: 'date' as const,
      hint: 'Its day and month stay the anchor of all later due dates.',
    },
    { name: 'installedOn', label: 'Installed', kind: 'date' as const },
    {
      name: 'station',
      label: 'Station',
      hint: 'What stands in one line at this site has the same name here.',
    },
    {
      name: 'stationPlace',
      label: 'Place in the line',
      kind: 'number' as const,
      hint: '1 is next to the inlet.',
    },
    {
      name: 'position',
      label: 'Position',
      wide: true,
      hint: 'So that someone else finds it: room, wall, cover.',
    },
  ]
})
const initial = computed<Partial<Entered>>(() => {
  const e = current.value
  if (!e) return { id: newId }
  const { tag, family, kind, sizeIn, serial, maker, model, service, position } = e
  return {
    ...{ id: e.id, siteId: e.site.id, tag, family, kind, sizeIn, serial, maker, model, position },
    service,
    programme: e.programme,
    ...(e.station ? { station: e.station } : {}),
    ...(e.stationPlace ? { stationPlace: e.stationPlace } : {}),
    ...(e.specSheet ? { specSheet: e.specSheet } : {}),
    ...(e.dueOn ? { dueOn: e.dueOn } : {}),
    ...(e.installedOn ? { installedOn: e.installedOn } : {}),
  }
})

async function save(entered: Entered) {
  busy.value = true
  problem.value = null
  const { id, ...changes } = entered
  try {
    const saved = current.value
      ? await call(api.register.changeEquipment, {
          params: { id },
          version: current.value.version,
          // What was emptied is taken out of the line.
          body: {
            ...changes,
            station: changes.station ?? null,
            stationPlace: changes.stationPlace ?? null,
          },
        })
      : await call(api.register.createEquipment, { body: entered })
    form.value?.forget()
    await router.push({ name: 'equipment', params: { id: saved.id } })
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}

function leave() {
  form.value?.forget()
  router.back()
}

function siteAdded(site: Site) {
  offer([site])
  addingSite.value = false
}
</script>

<template>
  <div>
    <h1>{{ id ? `Change ${current?.tag ?? ''}` : 'Add equipment' }}</h1>
    <ProblemNote :problem="problem" @retry="load" />
    <p v-if="!id" class="soft">
      Is the site not in the list?
      <BButton variant="link" @click="addingSite = true">Add a site</BButton>
    </p>
    <EntryField
      v-if="ready && sites.length > MANY"
      v-model="words"
      class="find"
      kind="search"
      label="Find the site"
      placeholder="Name or address"
      hint="What fits comes first in the list of sites."
    />
    <RecordForm
      v-if="ready"
      ref="form"
      :schema="body"
      :fields="fields"
      :initial="initial"
      :busy="busy"
      :action="id ? 'Save the change' : 'Add it'"
      :typed="`equipment-${id ?? 'new'}`"
      @submit="save"
      @cancel="leave"
    />
    <NewSite v-model="addingSite" @added="siteAdded" />
  </div>
</template>

<style scoped>
.find {
  max-width: 30rem;
  margin-bottom: 1rem;
}
</style>
