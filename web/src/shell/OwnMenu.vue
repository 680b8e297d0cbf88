<script setup lang="ts">
/** What somebody does about himself: the account, the lock, signing out. */
import { useDeviceKey } from '@/stores/deviceKey'
import { useLock } from '@/stores/lock'
import WhoAmI from './WhoAmI.vue'

defineEmits<{ signOut: [] }>()
const keys = useDeviceKey()
const lock = useLock()
</script>

<template>
  <BDropdown variant="link" no-caret end toggle-class="who">
    <template #button-content><WhoAmI /></template>
    <BDropdownItem :to="{ name: 'account' }">Password and licences</BDropdownItem>
    <BDropdownItemButton v-if="keys.own()" @click="lock.lock('hand')">Lock</BDropdownItemButton>
    <BDropdownItemButton @click="$emit('signOut')">Sign out</BDropdownItemButton>
  </BDropdown>
</template>
