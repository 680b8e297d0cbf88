<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiProblem } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import ProblemNote from '@/parts/ProblemNote.vue'
import VisitLine from '@/parts/VisitLine.vue'
import { useSession } from '@/stores/session'

useTitle('Sign in')
const session = useSession()
const router = useRouter()
const route = useRoute()
const username = ref('')
const password = ref('')
const busy = ref(false)
const message = ref('')

async function signIn() {
  message.value = ''
  if (!username.value.trim() || !password.value) {
    message.value = 'Type your name and your password.'
    return
  }
  busy.value = true
  try {
    await session.signIn(username.value.trim().toLowerCase(), password.value)
    const to =
      typeof route.query.to === 'string' && /^\/(?!\/)/.test(route.query.to) ? route.query.to : '/'
    await router.replace(to)
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    message.value = error.message
    password.value = ''
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="sign-in">
    <div class="sheet">
      <div class="drawing" aria-hidden="true">
        <VisitLine :done="['prepare', 'arrive']" :skipped="[]" small />
      </div>
      <h1>Uvanta</h1>
      <p class="soft">Service visits for gas and water equipment: measured, judged, signed.</p>
      <ProblemNote :problem="null" :message="message" />
      <form novalidate @submit.prevent="signIn">
        <label class="form-label" for="username">Name</label>
        <input
          id="username"
          v-model="username"
          class="form-control"
          autocomplete="username"
          autocapitalize="none"
          spellcheck="false"
          autofocus
        />
        <label class="form-label" for="password">Password</label>
        <input
          id="password"
          v-model="password"
          class="form-control"
          type="password"
          autocomplete="current-password"
        />
        <BButton type="submit" variant="primary" size="lg" :disabled="busy">Sign in</BButton>
      </form>
      <p class="foot soft small">
        <RouterLink :to="{ name: 'verify' }">Check a certificate</RouterLink> – no account needed
      </p>
    </div>
  </div>
</template>

<style scoped>
.sign-in {
  display: grid;
  place-items: center;
  min-height: 88vh;
}

.sheet {
  width: min(30rem, 100%);
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 1.75rem;
}

.drawing {
  border-bottom: 1px solid var(--rule);
  margin: -0.5rem 0 1.25rem;
  padding-bottom: 1rem;
}

.drawing :deep(.small-line) {
  width: 100%;
  height: 52px;
}

h1 {
  font-size: 2.25rem;
}

form {
  display: grid;
  gap: 0.25rem;
}

form .form-control {
  margin-bottom: 0.9rem;
}

.foot {
  margin: 1.25rem 0 0;
}
</style>
