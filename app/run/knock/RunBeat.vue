<script setup lang="ts">
/** A beat to tap to: seen, and heard where sound is on. Usage: <RunBeat /> while it is tapped. */
import { useIntervalFn } from '@vueuse/core'
import { ref } from 'vue'
import { BEATS_A_MINUTE } from './beat'
import { tick } from '~/parts/show/speech'
import { usePreferences } from '~/parts/show/usePreferences'

const { sound } = usePreferences()
const on = ref(false)
const even = ref(false)
useIntervalFn(() => {
  even.value = !even.value
  if (on.value && sound.value) tick()
}, 60_000 / BEATS_A_MINUTE)
</script>

<template>
  <p class="beat">
    <span class="dots" aria-hidden="true"><i :class="{ lit: even }"></i><i :class="{ lit: !even }"></i></span>
    <button type="button" :aria-pressed="on" @click="on = !on">
      {{ on ? 'Beat: heard' : 'Hear the beat' }}
    </button>
    <span>{{ BEATS_A_MINUTE }} taps a minute, light</span>
  </p>
</template>

<style scoped>
.beat {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s3);
  align-items: center;
}
.dots {
  display: inline-flex;
  gap: var(--s2);
}
i {
  width: 2rem;
  height: 2rem;
  border-radius: 50%;
  border: 3px solid currentColor;
}
i.lit {
  background: currentColor;
}
button {
  min-height: 44px;
  padding: 0 var(--s3);
  border: 2px solid currentColor;
  border-radius: 999px;
  background: transparent;
  color: inherit;
  font-weight: 600;
  cursor: pointer;
}
</style>
