<script setup lang="ts">
/** What is to be weighed, large; with a scale on the line, what is still to go on. Usage: <RunTarget :target-g="750" /> */
import { computed } from 'vue'
import { useUnits } from '~/parts/show/useUnits'
import { useScale } from './useScale'

const props = defineProps<{ targetG: number }>()
const units = useUnits()
const scale = useScale()
const toGoG = computed(() => {
  if (!scale.connected.value || scale.massG.value === undefined) return undefined
  return props.targetG - (scale.massG.value - scale.zeroG.value)
})
</script>

<template>
  <p class="figure mass">
    <template v-if="toGoG !== undefined">
      {{ units.mass(Math.abs(toGoG)) }}
      <span class="other">{{ toGoG < 0 ? 'too much' : 'to go' }} of {{ units.mass(targetG) }}</span>
    </template>
    <template v-else>
      {{ units.mass(targetG) }}
      <span class="other">{{ units.massOther(targetG) }}</span>
    </template>
  </p>
</template>

<style scoped>
.mass {
  font-size: clamp(4rem, 11vw, 7.5rem);
}
.other {
  font-family: var(--text);
  font-size: 1.3rem;
  font-weight: 400;
  letter-spacing: 0;
  color: var(--on-ground-soft);
}
@media (max-width: 43rem) {
  .mass {
    font-size: 3.6rem;
  }
}
</style>
