<script setup lang="ts">
/** Who is signed in: the button of a menu that is fetched when somebody wants it. */
import WhoAmI from './WhoAmI.vue'

defineEmits<{ open: [] }>()
</script>

<template>
  <button
    type="button"
    class="btn btn-link who dropdown-toggle"
    aria-haspopup="menu"
    aria-expanded="false"
    @click="$emit('open')"
  >
    <WhoAmI />
  </button>
</template>
