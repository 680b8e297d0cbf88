<script setup lang="ts">
import { guideOpens, guidesOf, sheetsOf } from '@uvanta/core/library'
import type { Notice } from '@uvanta/core/visit'
import { computed, ref, shallowRef } from 'vue'
import EntryField from '@/parts/form/EntryField.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** The job guide of the visit, its variant, and the sheet whose figures hold. */
const props = defineProps<{
  /** Element that is likely at fault: a guide that comes to it says so. */
  suspect?: string | undefined
  /** Its name. */
  words?: string
}>()
const store = useVisit()
const library = useLibrary()
const refusal = shallowRef<Notice | null>(null)
const equipment = computed(() => store.state.plan?.equipment)
const guides = computed(() =>
  library.library ? guidesOf(library.library, equipment.value?.family ?? '') : [],
)
const chosenId = ref('')
/** Those that come to what is likely at fault. */
const fitting = computed(() => {
  const { suspect } = props
  return suspect && library.library
    ? guides.value.filter((g) => guideOpens(library.library!, g, suspect))
    : []
})
/** Of several none is taken for granted: which one it is follows from what was found. */
const guide = computed(() => {
  const usual = fitting.value.length === 1 ? fitting.value : guides.value
  return (
    guides.value.find((g) => g.id === chosenId.value) ?? (usual.length === 1 ? usual[0] : undefined)
  )
})
const variantId = ref('')
const variant = computed(
  () => guide.value?.variants.find((v) => v.id === variantId.value) ?? guide.value?.variants[0],
)
const brought = (ids: readonly string[]) =>
  ids.map((id) => guide.value?.jobs?.find((j) => j.id === id)?.title ?? id).join(', ')
/** Sub-jobs that are ticked. */
const jobs = ref<string[]>([])
const NONE = 'none'
const sheets = computed(() =>
  library.library ? sheetsOf(library.library, equipment.value?.family ?? '') : [],
)
const sheetId = ref('')
/** The sheet of the register is proposed; without one the figures are asked for. */
const sheet = computed(() =>
  sheetId.value === NONE
    ? undefined
    : sheets.value.find((s) => s.id === (sheetId.value || equipment.value?.specSheet)),
)

function choose() {
  if (!guide.value || !variant.value) return
  const own = jobs.value.filter((id) => guide.value?.jobs?.some((j) => j.id === id))
  refusal.value = store.record('guide-chosen', {
    guideId: guide.value.id,
    version: guide.value.version,
    variant: variant.value.id,
    ...(own.length > 0 ? { jobs: own } : {}),
    ...(sheet.value ? { sheet: { id: sheet.value.id, version: sheet.value.version } } : {}),
  })
}
</script>

<template>
  <section v-if="guides.length > 0" class="chooser" aria-label="Job guide">
    <slot />
    <p class="soft">
      With a guide every step, part and kit item is kept account of. Without one the stations take
      notes.
    </p>
    <ul v-if="guides.length > 1" class="rows routes">
      <li v-for="g in guides" :key="g.id">
        <strong>{{ g.title }}</strong> {{ g.chooseWhen }}
        <strong v-if="fitting.includes(g)">It comes to {{ words }}.</strong>
      </li>
    </ul>
    <div class="fields">
      <EntryField
        label="Job guide"
        kind="choice"
        :options="[
          ...(guides.length > 1 ? [{ value: '', text: 'Choose which' }] : []),
          ...guides.map((g) => ({ value: g.id, text: g.title })),
        ]"
        :model-value="guide?.id ?? ''"
        @update:model-value="chosenId = $event ?? ''"
      />
      <template v-if="guide">
        <EntryField
          label="Variant"
          kind="choice"
          :options="guide.variants.map((v) => ({ value: v.id, text: v.title }))"
          :model-value="variant?.id"
          @update:model-value="variantId = $event ?? ''"
        />
        <EntryField
          label="Spec sheet"
          kind="choice"
          :options="[
            ...sheets.map((s) => ({ value: s.id, text: `${s.maker} ${s.model}, ${s.date}` })),
            { value: NONE, text: 'None – figures are asked for' },
          ]"
          :model-value="sheet?.id ?? NONE"
          @update:model-value="sheetId = $event ?? ''"
        />
        <fieldset v-if="guide.jobs" class="jobs">
          <legend>Besides what every visit does</legend>
          <BFormCheckbox v-for="j in guide.jobs" :key="j.id" v-model="jobs" :value="j.id"
            >{{ j.title
            }}<span v-if="j.brings" class="soft">
              – brings: {{ brought(j.brings) }}</span
            ></BFormCheckbox
          >
        </fieldset>
        <BButton variant="primary" @click="choose">Take this guide</BButton>
      </template>
    </div>
    <ProblemNote :refusal="refusal" />
  </section>
</template>

<style scoped>
.chooser {
  border-top: 2px solid var(--rule-strong);
  padding-top: 0.6rem;
  margin-top: 1.25rem;
}

.routes {
  margin-bottom: 0.75rem;
}

.routes li {
  padding: 0.4rem 0;
}

.jobs {
  grid-column: 1 / -1;
}

.jobs legend {
  font-size: 1rem;
  font-weight: 600;
}

.jobs :deep(.form-check) {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 48px;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(15rem, 100%), 1fr));
  gap: 0.75rem;
  align-items: end;
}
</style>
