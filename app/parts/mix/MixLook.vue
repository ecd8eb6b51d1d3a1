<script setup lang="ts">
/**
 * A bowl cut through, as it looks at one moment of the mix: how far the powder has sunk, what stands dry on it, lumps,
 * a trail, its gloss. Drawn from the same numbers everywhere. Usage: <MixLook :look label="Dry islands" />
 */
import { computed } from 'vue'
import type { BowlLook } from '#core/mix'
import { lookPicture } from './lookPicture'

const props = defineProps<{ look: BowlLook; label?: string }>()
const picture = computed(() => lookPicture(props.look))
</script>

<template>
  <svg
    viewBox="0 0 120 92"
    :role="label ? 'img' : undefined"
    :aria-label="label"
    :aria-hidden="label ? undefined : true"
  >
    <path :d="picture.water" class="water" />
    <path :d="picture.bed" class="powder" />
    <path v-for="(d, i) in picture.dry" :key="`d${i}`" :d="d" class="dry" />
    <circle v-for="(l, i) in picture.lumps" :key="`l${i}`" :cx="l.x" :cy="l.y" :r="l.r" class="dry" />
    <path v-if="picture.bleed" :d="picture.bleed" class="water" />
    <path :d="picture.surface" class="surface" :style="{ opacity: 0.25 + 0.75 * (1 - look.gloss) }" />
    <path v-for="(d, i) in picture.glints" :key="`g${i}`" :d="d" class="glint" />
    <path d="M10 10 L15 13 L30 88 L90 88 L105 13 L110 10" class="bowl" />
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 9rem;
  display: block;
  /* Not by the look of the screen: water and plaster keep their colours. */
  --in-water: #9fc3ca;
  --in-powder: #dcd5c5;
  --in-dry: #f7f3e9;
  --in-line: #3c4a4e;
}
.water {
  fill: var(--in-water);
}
.powder {
  fill: var(--in-powder);
}
.dry {
  fill: var(--in-dry);
  stroke: var(--in-line);
  stroke-width: 0.9;
  stroke-linejoin: round;
}
.surface {
  fill: none;
  stroke: var(--in-line);
  stroke-width: 1.4;
}
.glint {
  fill: none;
  stroke: #fff;
  stroke-width: 2;
  stroke-linecap: round;
}
.bowl {
  fill: none;
  stroke: currentColor;
  stroke-width: 4;
  stroke-linejoin: round;
  stroke-linecap: round;
}
</style>
