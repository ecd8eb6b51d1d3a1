<script setup lang="ts">
/**
 * The mixing bowl at its smallest sensible size, with the water line and the slurry line drawn to scale.
 * Usage: <BowlPicture :bowl-ml :water-ml :slurry-ml />
 */
import { computed } from 'vue'

const props = defineProps<{ bowlMl: number; waterMl: number; slurryMl: number; label: string }>()
// A bucket of straight, slightly flaring sides: level goes nearly with volume, drawn as if it did.
const level = (ml: number) => 92 - 80 * Math.min(1, ml / props.bowlMl)
const halfWidth = (y: number) => 30 + (14 * (92 - y)) / 80
const water = computed(() => level(props.waterMl))
const slurry = computed(() => level(props.slurryMl))
const body = (y: number) => `M${60 - halfWidth(y)} ${y} L${60 + halfWidth(y)} ${y} L90 92 L30 92 Z`
</script>

<template>
  <svg viewBox="0 0 120 100" role="img" :aria-label="label">
    <path :d="body(slurry)" class="slurry" />
    <path :d="body(water)" class="water" />
    <line :x1="60 - halfWidth(water)" :x2="60 + halfWidth(water)" :y1="water" :y2="water" class="mark" />
    <path d="M14 8 L16 12 L30 92 L90 92 L104 12 L106 8" class="bucket" />
  </svg>
</template>

<style scoped>
svg {
  width: 7.5rem;
  flex: none;
  fill: none;
}
.slurry {
  fill: #d9d3c4;
}
.water {
  fill: var(--wet-light);
}
.mark {
  stroke: var(--wet);
  stroke-width: 2;
}
.bucket {
  stroke: currentColor;
  stroke-width: 4;
  stroke-linejoin: round;
  stroke-linecap: round;
}
</style>
