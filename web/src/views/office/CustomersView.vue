<script setup lang="ts">
import { api, bodyOf, type Customer, type Site } from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { computed, useTemplateRef } from 'vue'
import type * as yup from 'yup'
import { call } from '@/api/client'
import { queryFrom } from '@/api/queryFrom'
import { useTitle } from '@/composables/useTitle'
import RecordDialog from '@/parts/form/RecordDialog.vue'
import { useRecordDialog } from '@/parts/form/useRecordDialog'
import type { ListQuery } from '@/parts/list/listTypes'
import RecordList from '@/parts/list/RecordList.vue'
import OfficeTabs from './OfficeTabs.vue'

/** Whose equipment it is, whom to call there, and how to get in. */
useTitle('Customers')
const list = useTemplateRef<{ reload: () => Promise<void> }>('list')
const reload = () => list.value?.reload()
const load = ({ q, cursor }: ListQuery) =>
  call(api.register.listCustomers, { query: queryFrom({ q, cursor }) })
const columns = [
  { key: 'name', title: 'Customer' },
  { key: 'sites', title: 'Sites, and how to get in' },
  { key: 'actions', title: 'Actions', look: 'row-actions' },
] as const

const customerFields = [
  { name: 'name', label: 'Customer', wide: true },
  { name: 'contact', label: 'Whom to call' },
  { name: 'phone', label: 'Telephone', mono: true },
] as const
const siteFields = [
  { name: 'name', label: 'Site' },
  { name: 'district', label: 'District' },
  { name: 'address', label: 'Address', wide: true },
  {
    name: 'access',
    label: 'How to get in',
    kind: 'lines',
    rows: 3,
    wide: true,
    hint: 'Key, gate, hours, whom to ask. It stands on the visit from now on.',
  },
] as const
const bodies = {
  addCustomer: bodyOf(api.register.createCustomer),
  customer: bodyOf(api.register.changeCustomer),
  addSite: bodyOf(api.register.createSite),
  site: bodyOf(api.register.changeSite),
}
const adding = useRecordDialog<string, yup.InferType<typeof bodies.addCustomer>>(
  async (_, body) => {
    await call(api.register.createCustomer, { body })
    await reload()
  },
)
const changing = useRecordDialog<Customer, yup.InferType<typeof bodies.customer>>(
  async ({ id, version }, { contact = '', phone = '', ...body }) => {
    // What was emptied is taken out of the register.
    const changed = { ...body, contact, phone }
    await call(api.register.changeCustomer, { params: { id }, version, body: changed })
    await reload()
  },
)
const addingSite = useRecordDialog<
  { customer: Customer; id: string },
  yup.InferType<typeof bodies.addSite>
>(async (_, body) => {
  await call(api.register.createSite, { body })
  await reload()
})
const changingSite = useRecordDialog<Site, yup.InferType<typeof bodies.site>>(
  async ({ id, version }, { access = '', ...body }) => {
    const changed = { ...body, access }
    await call(api.register.changeSite, { params: { id }, version, body: changed })
    await reload()
  },
)
const customerInitial = computed(() => {
  const c = changing.subject.value
  return c ? { name: c.name, contact: c.contact, phone: c.phone } : {}
})
const siteInitial = computed(() => {
  const s = changingSite.subject.value
  return s ? { name: s.name, address: s.address, district: s.district, access: s.access } : {}
})
</script>

<template>
  <div>
    <OfficeTabs />
    <div class="list-head">
      <h1>Customers</h1>
      <BButton variant="outline-primary" @click="adding.open(uuidv7())">Add a customer</BButton>
    </div>
    <RecordList
      ref="list"
      what="customers"
      search="Customer or site"
      none="Add the first one, then its sites; equipment stands at a site."
      :columns="columns"
      :load="load"
      :row-key="(c: Customer) => c.id"
    >
      <template #name="{ row: c }">
        <strong>{{ c.name }}</strong>
        <div class="soft small">
          {{ c.contact || 'Nobody named' }} ·
          <a v-if="c.phone" class="mono phone" :href="`tel:${c.phone.replaceAll(' ', '')}`">{{
            c.phone
          }}</a>
          <span v-else>no telephone</span>
        </div>
      </template>
      <template #sites="{ row: c }">
        <p v-for="s in c.sites" :key="s.id" class="site">
          <BButton variant="link" size="sm" @click="changingSite.open(s)">{{ s.name }}</BButton>
          <span class="soft small">{{ s.address }}, {{ s.district }}</span>
          <span v-if="s.access" class="small way">{{ s.access }}</span>
        </p>
        <span v-if="c.sites.length === 0" class="soft small">No site yet</span>
      </template>
      <template #actions="{ row: c }">
        <BButton
          variant="outline-primary"
          size="sm"
          @click="addingSite.open({ customer: c, id: uuidv7() })"
          >Add a site</BButton
        >
        <BButton variant="link" size="sm" @click="changing.open(c)">Change</BButton>
      </template>
    </RecordList>
    <RecordDialog
      v-model="adding.shown.value"
      title="Add a customer"
      :schema="bodies.addCustomer"
      :fields="customerFields"
      :initial="{ id: adding.subject.value ?? '' }"
      action="Add"
      :busy="adding.busy.value"
      :problem="adding.problem.value"
      @submit="adding.submit"
    />
    <RecordDialog
      v-model="changing.shown.value"
      :title="`Change ${changing.subject.value?.name}`"
      :schema="bodies.customer"
      :fields="customerFields"
      :initial="customerInitial"
      action="Save"
      :busy="changing.busy.value"
      :problem="changing.problem.value"
      @submit="changing.submit"
    />
    <RecordDialog
      v-model="addingSite.shown.value"
      :title="`A site of ${addingSite.subject.value?.customer.name}`"
      :schema="bodies.addSite"
      :fields="siteFields"
      :initial="{
        id: addingSite.subject.value?.id as Site['id'],
        customerId: addingSite.subject.value?.customer.id as Customer['id'],
      }"
      action="Add"
      :busy="addingSite.busy.value"
      :problem="addingSite.problem.value"
      @submit="addingSite.submit"
    />
    <RecordDialog
      v-model="changingSite.shown.value"
      :title="`Change ${changingSite.subject.value?.name}`"
      :schema="bodies.site"
      :fields="siteFields"
      :initial="siteInitial"
      action="Save"
      :busy="changingSite.busy.value"
      :problem="changingSite.problem.value"
      @submit="changingSite.submit"
    />
  </div>
</template>

<style scoped>
.site {
  margin: 0 0 0.75rem;
}

.site .btn {
  display: block;
  text-align: left;
  padding: 0;
}

/* As high as a finger wants it, and in line with the name beside it. */
@media (min-width: 43.75em) {
  .site .btn {
    margin: -0.75rem 0;
  }
}

.phone {
  white-space: nowrap;
}

.way {
  display: block;
  max-width: 40rem;
}
</style>
