<script setup lang="ts">
/**
 * From sifting to demould on one line of minutes: what hands do above, what the plaster does below, ranges as they are.
 * Usage: <SettingTimeline :outcome="outcome" :soak-s="plan.soakS" :stir-s="plan.stirS" />
 */
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { PlanOutcome } from '#core/pour'
import { timelineOf, type Timeline } from './timeline'

const props = defineProps<{ outcome: PlanOutcome; soakS: number; stirS: number }>()
const line = computed(() => timelineOf(props.outcome, props.soakS, props.stirS))
/** As wide as it is shown, px: its words keep their size. */
const picture = useTemplateRef<SVGSVGElement>('picture')
const { width } = useElementSize(picture)
const wide = computed(() => Math.max(280, width.value))
const LEFT = 8
const ROW = 35
/** Wide enough for a letter of its words, px. */
const LETTER_PX = 8.2
/** Where its words begin: with its range, or as far left as they need to be to stand whole. */
const labelAt = ({ label, when, range }: Timeline['marks'][number]) =>
  Math.max(0, Math.min(x(range.low), wide.value - LETTER_PX * (label.length + when.length + 1)))
const x = (s: number) => LEFT + (s / line.value.endS) * (wide.value - 2 * LEFT)
</script>

<template>
  <figure>
    <svg
      ref="picture"
      :viewBox="`0 0 ${wide} ${78 + line.marks.length * ROW}`"
      role="img"
      :aria-label="line.spoken"
    >
      <g class="hands">
        <g v-for="step in line.steps" :key="step.label" :class="step.id">
          <rect
            :x="x(step.fromS)"
            y="6"
            :width="Math.max(2, x(step.toS) - x(step.fromS) - 1.5)"
            height="30"
            rx="5"
          />
        </g>
      </g>
      <g class="axis">
        <line :x1="LEFT" :x2="wide - LEFT" y1="50" y2="50" />
        <g v-for="tick in line.ticks" :key="tick">
          <line :x1="x(tick)" :x2="x(tick)" y1="46" :y2="74 + line.marks.length * ROW" class="grid" />
          <text :x="x(tick)" y="67">{{ tick / 60 }}</text>
        </g>
      </g>
      <g v-for="(mark, i) in line.marks" :key="mark.id" class="mark" :class="mark.id">
        <text :x="labelAt(mark)" :y="90 + i * ROW">
          {{ mark.label }}
          <tspan class="when">{{ mark.when }}</tspan>
        </text>
        <line
          class="range"
          :x1="x(mark.range.low)"
          :x2="x(Math.min(mark.range.high, line.endS))"
          :y1="103 + i * ROW"
          :y2="103 + i * ROW"
        />
        <circle :cx="x(mark.range.mid)" :cy="103 + i * ROW" r="7" />
      </g>
    </svg>
    <figcaption class="soft">
      <span v-for="step in line.steps" :key="step.id" class="key" :class="step.id">{{ step.label }}</span>
      minutes from the first powder in the water
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  display: block;
  font-size: 15px;
  font-family: var(--text);
}
text {
  fill: var(--ink);
  text-anchor: middle;
}
.hands rect {
  fill: var(--wet);
}
.hands .sift rect {
  fill: var(--stone);
}
.hands .pour rect {
  fill: var(--wet-light);
}
.axis line {
  stroke: var(--ink);
  stroke-width: 2;
}
.axis .grid {
  stroke: var(--line);
  stroke-width: 1;
}
.mark text {
  text-anchor: start;
  font-weight: 600;
}
.mark .when {
  font-weight: 400;
}
.mark .range {
  stroke: var(--warm-light);
  stroke-width: 12;
  stroke-linecap: round;
}
.mark circle {
  fill: var(--warm);
}
.mark.work_end .range {
  stroke: var(--wet-light);
}
.mark.work_end circle {
  fill: var(--wet);
}
figcaption {
  font-size: 0.9rem;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s3);
}
.key::before {
  content: '';
  display: inline-block;
  width: 0.8em;
  height: 0.8em;
  border-radius: 0.25em;
  margin-right: 0.35em;
  background: var(--wet);
}
.key.sift::before {
  background: var(--stone);
}
.key.soak::before {
  background: #3f7f8e;
}
.key.pour::before {
  background: var(--wet-light);
}
.hands .soak rect {
  fill: #3f7f8e;
}
</style>
