<script setup lang="ts">
/** What still waits on the device is said before it is handed on. */
const shown = defineModel<boolean>({ required: true })
defineProps<{ total: number }>()
const emit = defineEmits<{ leave: [] }>()
</script>

<template>
  <BModal v-model="shown" title="Sign out" no-footer>
    <p>
      {{ total }} {{ total === 1 ? 'entry has' : 'entries have' }} not reached the server yet. They
      stay on this device, under your name, and are sent when you sign in on it again. Nobody else
      can send them or take them away.
    </p>
    <div class="actions">
      <BButton variant="primary" @click="shown = false">Stay signed in</BButton>
      <BButton variant="outline-primary" @click="emit('leave')">Sign out all the same</BButton>
    </div>
  </BModal>
</template>
