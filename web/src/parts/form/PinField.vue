<script setup lang="ts">
import { ref, watch } from 'vue'

/** Six digits for wet gloves: large keys, and the last digit sends. */
defineProps<{ busy?: boolean; label?: string }>()
const emit = defineEmits<{ pin: [pin: string] }>()
const LENGTH = 6
const pin = ref('')
watch(pin, (typed) => {
  const digits = typed.replaceAll(/\D/g, '').slice(0, LENGTH)
  if (digits !== typed) {
    pin.value = digits
    return
  }
  if (digits.length < LENGTH) return
  emit('pin', digits)
  pin.value = ''
})
const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '', '0', '⌫'] as const
function press(key: string) {
  pin.value = key === '⌫' ? pin.value.slice(0, -1) : pin.value + key
}
</script>

<template>
  <div class="pin">
    <label class="form-label" for="pin">{{ label ?? 'PIN of this device' }}</label>
    <input
      id="pin"
      v-model="pin"
      class="form-control mono"
      type="password"
      inputmode="numeric"
      autocomplete="off"
      :maxlength="LENGTH"
      :disabled="busy"
      aria-describedby="pin-hint"
    />
    <p id="pin-hint" class="soft small" role="status">
      {{ busy ? 'One moment …' : `${pin.length} of ${LENGTH} digits` }}
    </p>
    <div class="keys" aria-hidden="true">
      <template v-for="(key, n) in KEYS" :key="n">
        <span v-if="key === ''"></span>
        <button
          v-else
          type="button"
          class="btn btn-outline-primary"
          tabindex="-1"
          :disabled="busy"
          @click="press(key)"
        >
          {{ key }}
        </button>
      </template>
    </div>
  </div>
</template>

<style scoped>
.pin {
  max-width: 20rem;
}

input {
  font-size: 1.75rem;
  letter-spacing: 0.5em;
  text-align: center;
}

.keys {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0.5rem;
}

.keys .btn {
  min-height: 56px;
  font-size: 1.25rem;
}
</style>
