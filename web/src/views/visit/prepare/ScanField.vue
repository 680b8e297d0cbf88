<script setup lang="ts">
import IconScan from '~icons/bi/upc-scan'
import { onBeforeUnmount, ref, useTemplateRef } from 'vue'

/** A number on a bag: typed, or read by the camera from its bar code or QR code. */
const model = defineModel<string>({ required: true })
const emit = defineEmits<{ scanned: [] }>()
defineProps<{ label: string }>()
const scanning = ref(false)
const message = ref('')
const picture = useTemplateRef<HTMLVideoElement>('picture')
let stop: (() => void) | undefined

const isClosed = () => !scanning.value

async function scan() {
  message.value = ''
  scanning.value = true
  try {
    // Fetched when it is wanted: most numbers are typed.
    const { BrowserMultiFormatReader } = await import('@zxing/browser')
    const controls = await new BrowserMultiFormatReader().decodeFromConstraints(
      { video: { facingMode: 'environment' } },
      picture.value ?? undefined,
      (result) => {
        if (!result) return
        model.value = result.getText().trim()
        emit('scanned')
        close()
      },
    )
    stop = () => controls.stop()
    // Closed while the camera was starting.
    if (isClosed()) close()
  } catch {
    close()
    message.value = 'The camera cannot be used here. Type the number.'
  }
}
function close() {
  stop?.()
  stop = undefined
  scanning.value = false
}
onBeforeUnmount(close)
</script>

<template>
  <div>
    <label
      >{{ label }}
      <span class="pair">
        <BFormInput v-model="model" class="mono" autocomplete="off" />
        <BButton variant="outline-primary" aria-label="Scan it with the camera" @click="scan"
          ><IconScan aria-hidden="true" /> Scan</BButton
        >
      </span>
    </label>
    <div v-show="scanning" class="scanner">
      <video ref="picture" muted playsinline />
      <BButton variant="link" @click="close">Stop scanning</BButton>
    </div>
    <p v-if="message" class="caution" role="alert">{{ message }}</p>
  </div>
</template>

<style scoped>
label {
  font-weight: 600;
  display: block;
}

.pair {
  display: grid;
  grid-template-columns: minmax(0, 16rem) auto;
  gap: 0.5rem;
  justify-content: start;
}

video {
  width: 100%;
  max-width: 24rem;
  border: 2px solid var(--rule-strong);
}
</style>
