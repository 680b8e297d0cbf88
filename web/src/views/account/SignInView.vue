<script setup lang="ts">
import { line } from '@uvanta/core/schema'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { object, string } from 'yup'
import { ApiProblem } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import VisitLine from '@/parts/VisitLine.vue'
import { useSession } from '@/stores/session'

useTitle('Sign in')
const session = useSession()
const router = useRouter()
const route = useRoute()
const busy = ref(false)
const message = ref('')

const { submit } = useEntry(
  object({
    username: line(80).required('is missing'),
    password: string().required('is missing'),
  }),
  {},
  async ({ username, password }) => {
    message.value = ''
    busy.value = true
    try {
      await session.signIn(username.trim().toLowerCase(), password)
      const { to } = route.query
      await router.replace(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : '/')
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      message.value = error.message
    } finally {
      busy.value = false
    }
  },
)
</script>

<template>
  <div class="sign-in">
    <div class="sheet">
      <div class="drawing" aria-hidden="true">
        <VisitLine :done="['prepare', 'arrive']" :skipped="[]" small />
      </div>
      <h1>Uvanta</h1>
      <p class="soft">Service visits for gas and water equipment: measured, judged, signed.</p>
      <ProblemNote :message="message" />
      <form novalidate @submit.prevent="submit">
        <EntryField
          name="username"
          label="Name"
          autocomplete="username"
          autocapitalize="none"
          spellcheck="false"
          autofocus
        />
        <EntryField
          name="password"
          label="Password"
          kind="password"
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
  gap: 1.1rem;
}

.foot {
  margin: 1.25rem 0 0;
}
</style>
