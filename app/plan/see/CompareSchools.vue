<script setup lang="ts">
/** The schools of mixing side by side on this job, as moulds filled to different heights. Usage: <CompareSchools :plan :last-consistency /> */
import { SCHOOL_WORDS, flowPicture } from '../words'
import { figure } from '~/parts/show/figures'
import { computed } from 'vue'
import { compareSchools, type PourPlan, type SchoolOutcome } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { pourTimeText } from '~/parts/mix/pourTime'
import { durationText } from '~/parts/show/time'

const props = defineProps<{ plan: PourPlan; lastConsistency: number | undefined }>()
const units = useUnits()
const schools = computed(() => compareSchools(props.plan, props.lastConsistency))

const BOTTOM = 92
const FULL = 70
const level = (fill: number) => BOTTOM - FULL * Math.min(1, fill)
/** What runs over stands in a cup half as wide, so twice as high. */
const over = (s: SchoolOutcome) => Math.min(FULL, FULL * Math.max(0, s.fill - 1) * 2)
const fillWords = (s: SchoolOutcome) => {
  if (s.fill < 0.995) return `${Math.round(100 * s.fill)} % full`
  const leftMl = s.leftMl
  return leftMl < 0.01 * props.plan.mould.cavityMl ? 'just full' : `full, ${units.roughVolume(leftMl)} left`
}
</script>

<template>
  <ol class="schools">
    <li v-for="s in schools" :key="s.id" :class="{ mine: s.id === 'plan', short: s.fill < 0.995 }">
      <svg viewBox="0 0 120 100" role="img" :aria-label="`${SCHOOL_WORDS[s.id]}: ${fillWords(s)}`">
        <rect x="8" y="14" width="72" height="86" rx="8" class="block" />
        <rect x="18" :y="level(s.fill)" width="52" :height="BOTTOM - level(s.fill)" class="slurry" />
        <path d="M18 14 V92 H70 V14" class="cavity" />
        <line x1="14" x2="74" :y1="BOTTOM - FULL" :y2="BOTTOM - FULL" class="full" />
        <template v-if="s.leftMl > 0.005 * plan.mould.cavityMl">
          <rect x="88" :y="100 - over(s)" width="26" :height="over(s)" class="slurry" />
          <path d="M86 30 V100 H116 V30" class="cup" />
        </template>
      </svg>
      <b>{{ SCHOOL_WORDS[s.id] }}</b>
      <span class="fill">{{ fillWords(s) }}</span>
      <dl>
        <div>
          <dt>Ratio</dt>
          <dd>{{ figure(s.sketch.consistency) }} to 100</dd>
        </div>
        <div>
          <dt>Water</dt>
          <dd>{{ units.mass(s.waterG) }}</dd>
        </div>
        <div>
          <dt>Plaster</dt>
          <dd>{{ units.mass(s.powderG) }}</dd>
        </div>
        <div>
          <dt>Strength</dt>
          <dd>{{ units.strength(s.sketch.dryMPa.mid) }}</dd>
        </div>
        <div>
          <dt>Time to pour</dt>
          <dd>{{ pourTimeText(s.sketch.pourWindowS) }}</dd>
        </div>
        <div>
          <dt>Gloss gone</dt>
          <dd>{{ durationText(s.sketch.initialSetS.mid) }}</dd>
        </div>
        <div>
          <dt>Dry in</dt>
          <dd>{{ durationText(s.sketch.dryS.mid) }}</dd>
        </div>
        <div>
          <dt>Flow</dt>
          <dd>{{ flowPicture(s.sketch.viscosityPaS) }}</dd>
        </div>
      </dl>
    </li>
  </ol>
  <p class="soft small">
    Rules that go by the mould take that share of it in water, at this plan’s ratio. The others take this
    plan’s water and their own ratio. The cup beside a mould holds what is left over.
  </p>
</template>

<style scoped>
.schools {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s4) var(--s3);
  grid-template-columns: repeat(auto-fill, minmax(8.6rem, 1fr));
}
li {
  display: grid;
  align-content: start;
  gap: 2px;
  line-height: 1.2;
  padding: var(--s2);
  border-radius: 0.9rem;
}
.mine {
  background: color-mix(in srgb, var(--wet-light) 35%, transparent);
}
.fill {
  font-weight: 700;
  font-size: 1.05rem;
}
.short .fill {
  color: var(--warm-ink);
}
svg {
  width: 100%;
  max-width: 9rem;
}
.block {
  fill: #c9bfae;
}
.slurry {
  fill: #fbf8f0;
  stroke: var(--ink);
  stroke-width: 0.8;
}
.cavity {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.cup {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 2;
}
.full {
  stroke: var(--wet);
  stroke-width: 1.5;
  stroke-dasharray: 4 3;
}
dl {
  margin: var(--s1) 0 0;
  font-size: 0.9rem;
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: var(--s2);
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  text-align: right;
}
</style>
