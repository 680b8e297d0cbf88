<script setup lang="ts">
import type { Customer, Site } from '@uvanta/contract'
import { api } from 'virtual:api'
import { line } from '@uvanta/core/schema'
import { v7 as uuidv7 } from 'uuid'
import { ref } from 'vue'
import { type InferType, object } from 'yup'
import { ApiProblem, call } from '@/api/client'
import DialogSheet from '@/parts/DialogSheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import RecordForm from '@/parts/form/RecordForm.vue'

/** Adds a site, and its customer when that is new as well. */
const shown = defineModel<boolean>({ required: true })
const emit = defineEmits<{ added: [site: Site] }>()
const problem = ref<ApiProblem | null>(null)
const schema = object({
  name: line(120).required('is missing'),
  address: line(200).required('is missing'),
  district: line(60).required('is missing'),
  customer: line(120).required('is missing'),
})
const fields = [
  { name: 'name', label: 'Site' },
  { name: 'address', label: 'Address' },
  { name: 'district', label: 'District' },
  {
    name: 'customer',
    label: 'Customer',
    hint: 'A known name is taken from the register; a new one is added.',
  },
] as const

/** The customer of that very name, as the register has it. */
async function named(name: string): Promise<Customer | undefined> {
  const { items } = await call(api.register.listCustomers, { query: { q: name } })
  return items.find((c) => c.name.toLowerCase() === name.toLowerCase())
}

async function add({ customer, ...site }: InferType<typeof schema>) {
  problem.value = null
  try {
    const name = customer.trim()
    const owner =
      (await named(name)) ??
      (await call(api.register.createCustomer, { body: { id: uuidv7(), name } }))
    emit(
      'added',
      await call(api.register.createSite, {
        body: { ...site, id: uuidv7(), customerId: owner.id },
      }),
    )
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
</script>

<template>
  <DialogSheet v-model="shown" title="Add a site" no-footer>
    <ProblemNote :problem="problem" />
    <RecordForm
      v-if="shown"
      :schema="schema"
      :fields="fields"
      :initial="{}"
      action="Add the site"
      @submit="add"
      @cancel="shown = false"
    />
  </DialogSheet>
</template>
