<script setup lang="ts">
import { api } from 'virtual:api'
import type { CertificatePayload } from '@uvanta/core/certificate'
import { computed, onMounted, watch } from 'vue'
import { call, fileUrl } from '@/api/client'
import { qrPicture } from '@/composables/qrPicture'
import { useLoad } from '@/composables/useLoad'
import { dateWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'

/** What comes after the signature: when it is due again, the customer’s copy, and where to go next. */
const props = defineProps<{ certificateId: string }>()
const session = useSession()
const { value, problem, load } = useLoad(async () => {
  const [certificate, visits] = await Promise.all([
    call(api.certificates.read, { params: { id: props.certificateId } }),
    call(api.visits.list, { query: { on: session.today, scope: 'mine', limit: '200' } }),
  ])
  const address = new URL(certificate.verifyPath ?? '', location.origin).href
  const open = visits.items.filter((v) => v.state === 'planned' || v.state === 'under-way')
  open.sort((a, b) => (a.time ?? '99').localeCompare(b.time ?? '99'))
  return {
    certificate,
    address,
    next: open[0],
    picture: await qrPicture(address),
  }
})
onMounted(load)
watch(() => props.certificateId, load)
const payload = computed(() => value.value?.certificate.payload as CertificatePayload | undefined)
const due = computed(() => {
  const p = payload.value
  if (p?.repairBy) return { label: 'To be repaired by', on: p.repairBy }
  return p?.nextDueOn ? { label: 'Next test due', on: p.nextDueOn } : null
})
const mail = computed(() => {
  const p = payload.value
  if (!p || !value.value) return ''
  const subject = `${p.equipment.tag}, ${p.equipment.site}: ${p.number}`
  const body = `${p.utility}\n${p.equipment.kind} ${p.equipment.tag}, ${p.equipment.site}, ${p.equipment.address}\n\n${value.value.address}\n`
  return `mailto:?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(body)}`
})
const next = computed(() => value.value?.next)
const way = computed(() =>
  next.value
    ? `geo:0,0?q=${encodeURIComponent(`${next.value.equipment.site}, ${next.value.equipment.address}`)}`
    : '',
)
</script>

<template>
  <div class="after no-print">
    <ProblemNote :problem="problem" @retry="load" />
    <template v-if="value">
      <section class="copy" aria-labelledby="copy-title">
        <img :src="value.picture" alt="" width="160" height="160" />
        <div>
          <h3 id="copy-title">The customer’s copy</h3>
          <p class="soft">Scanned with a phone, it opens without an account.</p>
          <div class="actions">
            <LinkButton :href="fileUrl(api.certificates.pdf, { id: certificateId })"
              >PDF, to print</LinkButton
            >
            <LinkButton :href="mail">Mail it</LinkButton>
          </div>
        </div>
      </section>
      <p v-if="due" class="due">
        {{ due.label }} <strong>{{ dateWords(due.on) }}</strong>
      </p>
      <section v-if="next" aria-labelledby="next-visit">
        <h3 id="next-visit">Next: {{ next.equipment.tag }}</h3>
        <p>
          {{ next.equipment.site }}, {{ next.equipment.address
          }}<template v-if="next.time"> · {{ next.time }}</template>
          <template v-if="next.arrival.access"><br />{{ next.arrival.access }}</template>
        </p>
        <div class="actions">
          <LinkButton variant="primary" large :to="{ name: 'visit', params: { id: next.id } }"
            >Open {{ next.equipment.tag }}</LinkButton
          >
          <LinkButton :href="way">The way there</LinkButton>
        </div>
      </section>
      <p v-else class="soft">No visit of yours is left today.</p>
    </template>
  </div>
</template>

<style scoped>
.after {
  display: grid;
  gap: 1.25rem;
}

h3 {
  font-size: 1.125rem;
}

.copy {
  display: flex;
  flex-wrap: wrap;
  gap: 1.25rem;
  align-items: center;
}

.copy img {
  border: 1px solid var(--rule);
  background: #fff;
}

.due {
  font-size: 1.25rem;
  margin: 0;
}
</style>
