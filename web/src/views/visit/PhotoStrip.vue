<script setup lang="ts">
import { api } from 'virtual:api'
import type { Notice, Station } from '@uvanta/core/visit'
import IconCamera from '~icons/bi/camera'
import { computed, onBeforeUnmount, shallowRef, useTemplateRef, watch } from 'vue'
import { fileUrl } from '@/api/client'
import ProblemNote from '@/parts/ProblemNote.vue'
import { photoOutbox } from '@/stores/photoOutbox'
import { useVisit } from '@/stores/visit'
import { smallerPicture } from './smallerPicture'

/** Photographs of a step or station: taken here, made smaller, kept on the device until sent. */
const props = defineProps<{ station: Station; step?: string; caption: string }>()
const store = useVisit()
const refusal = shallowRef<Notice | null>(null)
const field = useTemplateRef<HTMLInputElement>('field')
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)
const photos = computed(() =>
  store.state.photos.filter(
    (p) => p.station === props.station && (!props.step || p.step === props.step),
  ),
)

/** Addresses of the pictures: this device’s own until the server has them. */
const urls = shallowRef<Readonly<Record<string, string>>>({})
watch(
  photos,
  async (shown) => {
    const visit = store.visit?.id ?? ''
    const known = urls.value
    const found = await Promise.all(
      shown.map(async ({ photoId }) => {
        const kept = known[photoId]
        if (kept) return [photoId, kept] as const
        const own = await photoOutbox.read(photoId)
        const url = own
          ? URL.createObjectURL(own)
          : fileUrl(api.visits.photo, { id: visit, photo: photoId })
        return [photoId, url] as const
      }),
    )
    urls.value = Object.fromEntries(found)
  },
  { immediate: true },
)
onBeforeUnmount(() => {
  for (const url of Object.values(urls.value)) if (url.startsWith('blob:')) URL.revokeObjectURL(url)
})

async function take(event: Event) {
  const [file] = (event.target as HTMLInputElement).files ?? []
  if (field.value) field.value.value = ''
  if (!file) return
  const small = await smallerPicture(file)
  refusal.value = small
    ? await store.recordPhoto(small, {
        station: props.station,
        caption: props.caption.slice(0, 160),
        ...(props.step ? { step: props.step } : {}),
      })
    : { why: 'This file is no picture.', remedy: 'Take a photograph, or choose a picture.' }
}
</script>

<template>
  <section v-if="writable || photos.length > 0" class="photos no-print" aria-label="Photographs">
    <a v-for="p in photos" :key="p.photoId" :href="urls[p.photoId]" target="_blank">
      <img :src="urls[p.photoId]" :alt="p.caption" />
    </a>
    <label v-if="writable" class="btn btn-outline-primary">
      <IconCamera aria-hidden="true" /> Photograph
      <input
        ref="field"
        class="visually-hidden"
        type="file"
        accept="image/*"
        capture="environment"
        @change="take"
      />
    </label>
    <ProblemNote :refusal="refusal" />
  </section>
</template>

<style scoped>
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  margin-top: 1rem;
}

img {
  height: 72px;
  border: 2px solid var(--rule-strong);
  display: block;
}

label:focus-within {
  outline: 3px solid var(--blue);
  outline-offset: 2px;
}
</style>
