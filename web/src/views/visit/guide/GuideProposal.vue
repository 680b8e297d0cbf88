<script setup lang="ts">
import { apparatusOf, elementLabel } from '@uvanta/core/apparatus'
import { guideOpens } from '@uvanta/core/library'
import { computed } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'
import GuideChooser from './GuideChooser.vue'

/** After a failed test: whether the guide of the visit comes to what is at fault, and which one does. */
const props = defineProps<{
  /** Elements that may be to blame, the likeliest first. */
  suspects: readonly string[]
}>()
const store = useVisit()
const library = useLibrary()
const { guide } = useGuide(() => 'as-found')
const first = computed(() => props.suspects[0])
const words = computed(() => {
  const apparatus = apparatusOf(store.state.plan?.equipment.kind ?? '')
  return apparatus && first.value ? elementLabel(apparatus, first.value) : ''
})
const opens = computed(
  () =>
    guide.value &&
    (!first.value || (library.library && guideOpens(library.library, guide.value, first.value))),
)
</script>

<template>
  <p v-if="guide && opens" class="soft mt-3">
    The guide of this visit, {{ guide.title
    }}<template v-if="words">, comes to {{ words }}</template
    >.
  </p>
  <GuideChooser v-else :suspect="first" :words="words">
    <h2>The guide for it</h2>
    <p v-if="guide" class="caution">
      The guide of this visit, {{ guide.title }}, does not come to {{ words }}. Another may be taken
      as long as nothing is opened.
    </p>
  </GuideChooser>
</template>

<style scoped>
h2 {
  font-size: 1.0625rem;
}
</style>
