<script setup lang="ts">
/** A loud noise as a knock: on or off, how loud it is here, and from where on it counts. Usage: <RunNoise :noise /> */
import { usePreferences } from '~/parts/show/usePreferences'
import type { useNoiseKnock } from './useNoiseKnock'
import type { UnwrapNestedRefs } from 'vue'

defineProps<{ noise: UnwrapNestedRefs<ReturnType<typeof useNoiseKnock>> }>()
const { noiseKnock, noiseLevel } = usePreferences()
const percent = (of: number) => `${Math.round(of * 100)}%`
</script>

<template>
  <div class="noise">
    <button type="button" role="switch" :aria-checked="noiseKnock" @click="noiseKnock = !noiseKnock">
      {{ noiseKnock ? 'A loud noise goes on: on' : 'A loud noise goes on: off' }}
    </button>
    <template v-if="noiseKnock">
      <p v-if="noise.refused" role="alert">This browser does not let the microphone be heard.</p>
      <template v-else>
        <div class="meter" aria-hidden="true">
          <i :style="{ width: percent(noise.level) }" :class="{ over: noise.level >= noiseLevel }"></i>
          <b :style="{ left: percent(noiseLevel) }"></b>
        </div>
        <label>
          Counts from here
          <input v-model.number="noiseLevel" type="range" min="0.2" max="0.95" step="0.05" />
        </label>
        <p class="soft">Only how loud it is, here: nothing is kept or sent.</p>
      </template>
    </template>
  </div>
</template>

<style scoped>
.noise {
  display: grid;
  gap: var(--s2);
  justify-items: start;
}
button {
  min-height: 44px;
  padding: 0 var(--s3);
  border: 2px solid color-mix(in srgb, var(--on-ground) 35%, transparent);
  border-radius: 999px;
  background: transparent;
  color: inherit;
  font-weight: 600;
  cursor: pointer;
}
.meter {
  position: relative;
  width: 100%;
  height: 1.2rem;
  border: 2px solid currentColor;
  border-radius: 0.4rem;
}
.meter i {
  display: block;
  height: 100%;
  background: currentColor;
  opacity: 0.5;
}
.meter i.over {
  opacity: 1;
}
.meter b {
  position: absolute;
  top: -0.4rem;
  bottom: -0.4rem;
  width: 4px;
  background: currentColor;
}
label {
  display: grid;
  width: 100%;
}
input {
  width: 100%;
  min-height: 44px;
  accent-color: currentColor;
}
.soft {
  color: var(--on-ground-soft);
  font-size: 0.9rem;
}
</style>
