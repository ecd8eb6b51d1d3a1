<script setup lang="ts">
/**
 * Which air leaves while it is tapped: three bubbles in a column as deep as the mould, the middle one on its way up.
 * Usage: <RunAir :facts :now-ms />
 */
import { computed } from 'vue'
import { depthOf, filledMs, type PourOutlook } from '#core/pour'
import { durationText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const units = useUnits()

const flow = computed(() => props.facts.inHand.flow)
const helps = computed(() => flow.value.tapping.tapS > 0)
const depthMm = computed(() => depthOf(props.facts.plan))
/** An order of magnitude: to the millimetre, but for the smallest. */
const held = computed(() => {
  const { mid } = flow.value.air.heldBelowMm
  return mid < 2.5 ? mid : Math.round(mid)
})
/** Where tapping brings up no more than would rise anyway, it only hurries that. */
const tappedFrom = computed(() => Math.min(held.value, flow.value.air.tappedFromMm))
/** How far the middle one has come, 0–1. */
const risen = computed(() => {
  const fromMs = filledMs(props.facts.inHand.doneAtMs)
  if (fromMs === undefined || !helps.value) return 0
  return Math.min(1, Math.max(0, (props.nowMs - fromMs) / 1000 / flow.value.tapping.tapS))
})

const TOP = 12
const BOTTOM = 106
const rows = computed(() => [
  { id: 'rises', radius: 11, y: TOP + 7, says: `Over about ${units.size(held.value)}: rises by itself` },
  {
    id: 'tapped',
    radius: 6,
    y: BOTTOM - risen.value * (BOTTOM - TOP),
    says: helps.value
      ? `From ${units.size(tappedFrom.value)} on: up after ${durationText(flow.value.tapping.tapS)} of tapping`
      : 'It thickens before tapping could help',
  },
  {
    id: 'stays',
    radius: 2.5,
    y: BOTTOM,
    says: `${helps.value ? 'Smaller' : 'The rest'}: stays; only a brushed first coat keeps it off the face`,
  },
])
</script>

<template>
  <figure class="air" data-testid="air">
    <svg viewBox="0 0 96 118" width="96" height="118" aria-hidden="true">
      <path class="wall" d="M4 2 V116 H92 V2" />
      <path class="slurry" d="M6 6 H90 V114 H6 Z" />
      <circle v-for="(row, i) in rows" :key="row.id" :cx="22 + 27 * i" :cy="row.y" :r="row.radius" />
    </svg>
    <figcaption>
      <p class="deep">{{ units.size(depthMm) }} deep</p>
      <ul>
        <li v-for="row in rows" :key="row.id">{{ row.says }}</li>
      </ul>
    </figcaption>
  </figure>
</template>

<style scoped>
.air {
  margin: 0;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: var(--s3);
  align-items: start;
}
.wall {
  fill: none;
  stroke: currentColor;
  stroke-width: 3;
}
.slurry {
  fill: var(--plaster);
  opacity: 0.85;
}
circle {
  fill: var(--wet-light);
  stroke: var(--wet);
  stroke-width: 1.5;
}
.deep {
  font-weight: 700;
}
ul {
  margin: 0;
  padding-left: 1.1rem;
}
</style>
