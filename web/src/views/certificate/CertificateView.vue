<script setup lang="ts">
import type { CertificateDetail } from '@uvanta/contract'
import { api } from 'virtual:api'
import type { CertificatePayload } from '@uvanta/core/certificate'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ApiProblem, call, fileUrl } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import DialogSheet from '@/parts/DialogSheet.vue'
import LinkButton from '@/parts/LinkButton.vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import CertificateSheet from '@/parts/CertificateSheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useSession } from '@/stores/session'

const props = defineProps<{ id: string }>()
const session = useSession()
const router = useRouter()
const { value, loading, problem, load } = useLoad<CertificateDetail>(() =>
  call(api.certificates.read, { params: { id: props.id } }),
)
watch(() => props.id, load, { immediate: true })
useTitle(() => value.value?.number)
const payload = computed(() => value.value?.payload as CertificatePayload | undefined)

const asking = ref<'void' | 'supersede' | null>(null)
const refused = ref<ApiProblem | null>(null)
const dialog = computed({
  get: () => asking.value !== null,
  set: (v) => (asking.value = v ? asking.value : null),
})

function ask(what: 'void' | 'supersede') {
  refused.value = null
  asking.value = what
}

async function carryOut(reason: string) {
  refused.value = null
  try {
    const given = { params: { id: props.id }, body: { reason } }
    const result =
      asking.value === 'void'
        ? await call(api.certificates.void, given)
        : await call(api.certificates.supersede, given)
    asking.value = null
    if (result.id === props.id) value.value = result
    else await router.push({ name: 'certificate', params: { id: result.id } })
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    refused.value = error
  }
}
</script>

<template>
  <div>
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="loading && !value" what="the certificate" />
    <template v-if="value && payload">
      <p v-if="value.state !== 'current'" class="caution">
        This certificate is {{ value.state }}: {{ value.stateReason }}
        <RouterLink
          v-if="value.supersededBy"
          :to="{ name: 'certificate', params: { id: value.supersededBy } }"
          >The one that took its place</RouterLink
        >
      </p>
      <p v-if="value.supersedes" class="soft">
        It takes the place of
        <RouterLink :to="{ name: 'certificate', params: { id: value.supersedes } }"
          >an earlier one</RouterLink
        >.
      </p>
      <CertificateSheet :payload="payload">
        <template v-if="value.verifyPath" #actions>
          <LinkButton variant="primary" :href="fileUrl(api.certificates.pdf, { id })"
            >PDF</LinkButton
          >
          <LinkButton variant="outline-primary" :href="fileUrl(api.certificates.jws, { id })"
            >Signed file</LinkButton
          >
        </template>
      </CertificateSheet>
      <div class="actions section no-print">
        <LinkButton v-if="value.verifyPath" variant="link" :to="value.verifyPath"
          >What a stranger sees</LinkButton
        >
        <LinkButton variant="link" :to="{ name: 'visit', params: { id: value.visitId } }"
          >The visit and its log</LinkButton
        >
        <template v-if="value.state === 'current'">
          <BButton
            v-if="session.has('reviewer', 'technician')"
            variant="outline-primary"
            @click="ask('supersede')"
            >Replace it after a correction</BButton
          >
          <BButton v-if="session.has('reviewer')" variant="outline-danger" @click="ask('void')"
            >Declare it void</BButton
          >
        </template>
      </div>
      <DialogSheet
        v-model="dialog"
        :title="asking === 'void' ? 'Declare the certificate void' : 'Replace the certificate'"
        no-footer
      >
        <p v-if="asking === 'void'">
          It stays on record, and everyone who scans it sees that it is void. This cannot be undone.
        </p>
        <p v-else>
          A new certificate is issued from the corrected log; this one stays on record as
          superseded.
        </p>
        <ReasonForm
          label="Why"
          :action="asking === 'void' ? 'Declare it void' : 'Replace it'"
          :variant="asking === 'void' ? 'outline-danger' : 'primary'"
          @given="carryOut"
        >
          <ProblemNote :problem="refused" />
          <template #beside>
            <BButton variant="link" @click="asking = null">Leave it</BButton>
          </template>
        </ReasonForm>
      </DialogSheet>
    </template>
  </div>
</template>
