<script setup lang="ts">
import { useOnceShown } from '@/composables/useOnceShown'

/** A dialog of the framework, with what that takes; it is built when it is wanted for the first time. */
defineOptions({ inheritAttrs: false })
const shown = defineModel<boolean>({ required: true })
const wanted = useOnceShown(() => shown.value)
</script>

<template>
  <BModal v-if="wanted" v-model="shown" v-bind="$attrs"><slot /></BModal>
</template>
