<script setup lang="ts">
import EmptySheet from '@/parts/EmptySheet.vue'
</script>

<template>
  <EmptySheet title="There is no such page">
    The address may be mistyped. <RouterLink to="/">Go to Today</RouterLink>.
  </EmptySheet>
</template>
