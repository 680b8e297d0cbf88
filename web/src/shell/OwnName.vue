<script setup lang="ts">
/** Who is signed in: a way to the account, until the menu has come that has it among others. */
import WhoAmI from './WhoAmI.vue'
</script>

<template>
  <RouterLink class="btn btn-link who" :to="{ name: 'account' }"><WhoAmI /></RouterLink>
</template>
