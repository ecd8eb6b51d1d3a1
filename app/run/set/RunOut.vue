<script setup lang="ts">
/** How it came out, asked: whole is one of the answers. Usage: <RunOut @record="put" /> */
import type { EventBody } from '#core/pour'
import { OUT_ANSWERS } from '../words'

const emit = defineEmits<{ record: [body: EventBody] }>()
</script>

<template>
  <div class="out" role="group" aria-label="How did it come out?">
    <button
      v-for="{ label, outcome, gripped } in OUT_ANSWERS"
      :key="label"
      type="button"
      @click="emit('record', { type: 'demoulded', outcome, ...(gripped ? { gripped } : {}) })"
    >
      {{ label }}
    </button>
  </div>
</template>

<style scoped>
.out {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(9rem, 100%), 1fr));
  gap: var(--s3);
}
button {
  min-height: 4.6rem;
  padding: var(--s2);
  border-radius: 1.4rem;
  border: 3px solid currentColor;
  background: transparent;
  color: inherit;
  font-family: var(--display);
  font-weight: 700;
  font-size: clamp(1.1rem, 2.4vw, 1.7rem);
  line-height: 1.1;
  cursor: pointer;
}
</style>
