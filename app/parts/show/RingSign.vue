<script setup lang="ts">
/**
 * The product's sign: nine rings, one a stage, filled from the centre out.
 * Usage: <RingSign :rings="view.rings" :size="64" :label="'Soak, 4 of 9'" />
 */
import { computed } from 'vue'
import { ringArcs } from './ringArcs'

const props = defineProps<{ rings: readonly number[]; size: number; label: string; failed?: boolean }>()
const arcs = computed(() => ringArcs(props.rings))
</script>

<template>
  <svg
    class="sign"
    :class="{ failed }"
    :width="size"
    :height="size"
    viewBox="0 0 100 100"
    role="img"
    :aria-label="label"
  >
    <g v-for="arc in arcs" :key="arc.index" :class="['ring', arc.material]">
      <circle class="bed" cx="50" cy="50" :r="arc.radius" :stroke-width="arc.width * 0.16" />
      <circle
        v-if="arc.fill > 0"
        class="fill"
        cx="50"
        cy="50"
        :r="arc.radius"
        :stroke-width="arc.width * 0.8"
        :stroke-dasharray="`${arc.length * arc.fill} ${arc.length}`"
        transform="rotate(-90 50 50)"
      />
    </g>
    <path v-if="failed" class="strike" d="M18 82 L82 18" />
  </svg>
</template>

<style scoped>
.sign {
  display: block;
  flex: none;
  fill: none;
}
.bed {
  stroke: currentColor;
  opacity: 0.4;
}
.before .fill {
  stroke: var(--ring-before, var(--stone));
}
.wet .fill {
  stroke: var(--ring-wet, var(--wet));
}
.warm .fill {
  stroke: var(--ring-warm, var(--warm));
}
.dry .fill {
  stroke: var(--ring-dry, var(--dry));
}
.strike {
  stroke: var(--hot);
  stroke-width: 7;
  stroke-linecap: round;
}
:global(.ground-wet),
:global(.ground-warm) {
  --ring-before: #9aa39b;
  --ring-wet: #7fb9c4;
  --ring-warm: #e3a75b;
  --ring-dry: #f2eee5;
}
:global(.ground-before),
:global(.ground-dry) {
  --ring-before: var(--stone);
  --ring-wet: var(--wet);
  --ring-warm: var(--warm);
  --ring-dry: var(--dry);
}
</style>
