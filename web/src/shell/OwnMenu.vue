<script setup lang="ts">
/** What somebody does about himself: the account, the lock, signing out. */
import { onMounted, ref, useTemplateRef } from 'vue'
import { useDeviceKey } from '@/stores/deviceKey'
import { useLock } from '@/stores/lock'
import WhoAmI from './WhoAmI.vue'

defineEmits<{ signOut: [] }>()
const keys = useDeviceKey()
const lock = useLock()
const open = ref(false)
const menu = useTemplateRef<{ $el: HTMLElement }>('menu')
/** It comes when its button was pressed: open, and with the focus where that was. */
onMounted(() => {
  menu.value?.$el.querySelector('button')?.focus()
  open.value = true
})
</script>

<template>
  <BDropdown ref="menu" v-model="open" variant="link" end toggle-class="who">
    <template #button-content><WhoAmI /></template>
    <BDropdownItem :to="{ name: 'account' }">Password and licences</BDropdownItem>
    <BDropdownItemButton v-if="keys.own()" @click="lock.lock('hand')">Lock</BDropdownItemButton>
    <BDropdownItemButton @click="$emit('signOut')">Sign out</BDropdownItemButton>
  </BDropdown>
</template>
