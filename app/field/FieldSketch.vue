<script setup lang="ts">
/** Prints as they lie to each other: north up, with a bar. No map: nothing is asked for anywhere. Usage: <FieldSketch :prints /> */
import { computed } from 'vue'
import { offsetsM, scaleBar, type Position } from '#core/field'
import { plain } from '~/parts/show/figures'

const props = defineProps<{ prints: readonly { id: string; name: string; position: Position }[] }>()
const SIZE = 320
const MARGIN = 40
const sketch = computed(() => {
  const at = offsetsM(props.prints.map((p) => p.position))
  const [east, north] = [at.map((p) => p.eastM), at.map((p) => p.northM)]
  const [west, south] = [Math.min(...east), Math.min(...north)]
  const across = Math.max(10, Math.max(...east) - west, Math.max(...north) - south)
  const px = (SIZE - 2 * MARGIN) / across
  const bar = scaleBar(across)
  return {
    dots: props.prints.map((p, i) => ({
      ...p,
      x: MARGIN + (at[i]!.eastM - west) * px,
      y: SIZE - MARGIN - (at[i]!.northM - south) * px,
    })),
    barPx: bar * px,
    bar: bar >= 1000 ? `${plain(bar / 1000)} km` : `${plain(bar)} m`,
  }
})
</script>

<template>
  <svg
    class="sketch"
    :viewBox="`0 0 ${SIZE} ${SIZE}`"
    role="img"
    :aria-label="`${prints.length} prints as they lie`"
  >
    <g v-for="(d, i) in sketch.dots" :key="d.id">
      <circle :cx="d.x" :cy="d.y" r="7" />
      <text :x="d.x + 12" :y="d.y + 5">{{ i + 1 }}</text>
    </g>
    <path :d="`M${SIZE - 24} 44V14m-8 10l8-10l8 10`" class="north" />
    <text :x="SIZE - 24" y="62" text-anchor="middle">N</text>
    <path :d="`M${MARGIN} ${SIZE - 14}v8h${sketch.barPx}v-8`" class="north" />
    <text :x="MARGIN + sketch.barPx + 8" :y="SIZE - 6">{{ sketch.bar }}</text>
  </svg>
</template>

<style scoped>
.sketch {
  width: min(100%, 22rem);
  background: var(--chalk);
  border-radius: 0.6rem;
}
circle {
  fill: var(--wet);
}
text {
  fill: var(--ink);
  font-weight: 600;
  font-size: 15px;
}
.north {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
</style>
