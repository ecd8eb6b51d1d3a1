<script setup lang="ts">
/** How far a profile is filled, and volume against depth. Usage: <ProfileDepth :line :level @fill="…" @problem="…" /> */
import { computed } from 'vue'
import { depthVolumeCurve, revolvedVolumeMl, type Point } from '#core/mould'
import { useUnits } from '~/parts/show/useUnits'
import { depthCurvePath } from './profileBoard'

const props = defineProps<{ line: Point[]; level: number }>()
/** `fill` is null for brim full. */
const emit = defineEmits<{ fill: [heightMm: number | null]; problem: [message: string] }>()
const units = useUnits()

const floorMm = computed(() => Math.min(...props.line.map((p) => p[1])))
const rimMm = computed(() => props.line.at(-1)?.[1] ?? 0)
const curve = computed(() => depthVolumeCurve(props.line, 24))
const curvePath = computed(() => depthCurvePath(curve.value))
</script>

<template>
  <div class="depth">
    <QuantityField
      :model-value="level - floorMm"
      kind="length"
      label="Fill it to"
      :min="1"
      :max="Math.max(1, rimMm - floorMm)"
      @update:model-value="emit('fill', ($event ?? 0) >= rimMm - floorMm ? null : ($event ?? null))"
      @problem="emit('problem', $event)"
    />
    <figure>
      <svg
        viewBox="-2 -4 104 68"
        role="img"
        aria-label="Volume against depth of fill"
        preserveAspectRatio="none"
      >
        <path class="curve" :d="curvePath" vector-effect="non-scaling-stroke" />
        <line
          class="curve-level"
          :x1="((level - floorMm) / Math.max(1e-9, rimMm - floorMm)) * 100"
          :x2="((level - floorMm) / Math.max(1e-9, rimMm - floorMm)) * 100"
          y1="0"
          y2="60"
          vector-effect="non-scaling-stroke"
        />
      </svg>
      <figcaption class="soft small">
        depth → volume: {{ units.volume(revolvedVolumeMl(line, level)) }} of
        {{ units.volume(curve.at(-1)?.volumeMl ?? 0) }}
      </figcaption>
    </figure>
  </div>
</template>

<style scoped>
.depth {
  display: grid;
  grid-template-columns: 10rem 1fr;
  gap: var(--s3);
  align-items: end;
}
figure {
  margin: 0;
}
figure svg {
  width: 100%;
  height: 4.2rem;
}
.curve {
  fill: none;
  stroke: var(--wet);
  stroke-width: 2.5px;
}
.curve-level {
  stroke: var(--ink);
  stroke-width: 1.5px;
}
.small {
  font-size: 0.88rem;
}
@media (max-width: 43rem) {
  .depth {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
