<script setup lang="ts">
import { api, type Equipment, type Site } from '@uvanta/contract'
import { services } from '@uvanta/core/catalogue'
import { v7 as uuidv7 } from 'uuid'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { ApiProblem, call } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import ProblemNote from '@/parts/ProblemNote.vue'
import RecordForm from '@/parts/RecordForm.vue'
import { useLibrary } from '@/stores/library'
import NewSite from './NewSite.vue'

const props = defineProps<{ id?: string }>()
const library = useLibrary()
const router = useRouter()
const sites = ref<Site[]>([])
const current = ref<Equipment | null>(null)
const ready = ref(false)
const busy = ref(false)
const problem = ref<ApiProblem | null>(null)
const addingSite = ref(false)
const newId = uuidv7()
useTitle(() => (props.id ? `Change ${current.value?.tag ?? ''}` : 'Add equipment'))

async function load() {
  problem.value = null
  try {
    const [list] = await Promise.all([call(api.register.listSites, { query: {} }), library.load()])
    sites.value = list.items
    if (props.id)
      current.value = await call(api.register.readEquipment, { params: { id: props.id } })
    ready.value = true
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
onMounted(load)

const options = (list: readonly string[]) => list.map((v) => ({ value: v, text: v }))
const fields = computed(() => {
  const families = library.library?.families ?? []
  return [
    { name: 'tag', label: 'Tag', mono: true },
    {
      name: 'siteId',
      label: 'Site',
      type: 'select' as const,
      options: sites.value.map((s) => ({ value: s.id, text: `${s.name}, ${s.address}` })),
    },
    {
      name: 'family',
      label: 'Family',
      type: 'select' as const,
      options: families.map((f) => ({ value: f.id, text: f.title })),
    },
    {
      name: 'kind',
      label: 'Kind',
      type: 'select' as const,
      options: options([...new Set(families.flatMap((f) => f.kinds))].sort()),
    },
    { name: 'sizeIn', label: 'Size, in', mono: true },
    { name: 'serial', label: 'Serial', mono: true },
    { name: 'maker', label: 'Maker' },
    { name: 'model', label: 'Model' },
    {
      name: 'specSheet',
      label: 'Spec sheet',
      type: 'select' as const,
      options: (library.library?.specSheets ?? []).map((s) => ({
        value: s.id,
        text: `${s.maker} ${s.model}`,
      })),
    },
    { name: 'service', label: 'Service', type: 'select' as const, options: options(services) },
    {
      name: 'programme',
      label: 'Programme',
      type: 'select' as const,
      options: (library.library?.programmes ?? []).map((p) => ({ value: p.id, text: p.title })),
    },
    {
      name: 'dueOn',
      label: 'Next due',
      type: 'date' as const,
      hint: 'Its day and month stay the anchor of all later due dates.',
    },
    { name: 'installedOn', label: 'Installed', type: 'date' as const },
    {
      name: 'position',
      label: 'Position',
      wide: true,
      hint: 'So that someone else finds it: room, wall, cover.',
    },
  ]
})
const initial = computed(() => {
  const e = current.value
  if (!e) return {}
  const {
    tag,
    family,
    kind,
    sizeIn,
    serial,
    maker,
    model,
    specSheet,
    service,
    programme,
    dueOn,
    installedOn,
    position,
  } = e
  return {
    tag,
    siteId: e.site.id,
    family,
    kind,
    sizeIn,
    serial,
    maker,
    model,
    specSheet: specSheet ?? undefined,
    service,
    programme,
    dueOn,
    installedOn,
    position,
  }
})

async function save(values: Record<string, unknown>) {
  busy.value = true
  problem.value = null
  try {
    const e = current.value
    const saved = e
      ? await call(api.register.changeEquipment, {
          params: { id: e.id },
          version: e.version,
          body: values as never,
        })
      : await call(api.register.createEquipment, { body: { ...values, id: newId } as never })
    await router.push({ name: 'equipment', params: { id: saved.id } })
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}

function siteAdded(site: Site) {
  sites.value = [...sites.value, site]
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
    <RecordForm
      v-if="ready"
      :schema="api.register.createEquipment.body as never"
      :fields="fields"
      :initial="initial"
      :busy="busy"
      :action="id ? 'Save the change' : 'Add it'"
      @submit="save"
      @cancel="router.back()"
    />
    <NewSite v-model="addingSite" @added="siteAdded" />
  </div>
</template>
