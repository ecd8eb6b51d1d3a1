<script setup lang="ts">
/**
 * What thinner or stiffer costs, drawn under the slider and sharing its line: each curve runs from stiff to thin, the
 * dot is the mix in hand. Usage: <TradeOffs :plan="plan" />
 */
import { rounded } from '~/parts/show/figures'
import { watchDebounced } from '@vueuse/core'
import { computed, shallowRef } from 'vue'
import { consistencySpan, sketchMix, tradeOffs, type PourPlan } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { stepWordsOf, tradeOffRows } from './tradeOff'

const props = defineProps<{ plan: PourPlan }>()
const units = useUnits()

/** Five and twenty mixes take longer than the figure that is waited for: the curves come after it. */
const AFTER_MS = 80
const curve = shallowRef(tradeOffs(props.plan))
watchDebounced(
  () => props.plan,
  (plan) => (curve.value = tradeOffs(plan)),
  { debounce: AFTER_MS },
)
const now = computed(() => sketchMix(props.plan, props.plan.consistency))
const rows = computed(() => (now.value ? tradeOffRows(curve.value, now.value, units) : []))
/** A step the hand can feel. */
const STEP = 5
const steps = computed(() => {
  const { min, max } = consistencySpan(props.plan)
  const from = now.value
  if (!from) return []
  return [
    { name: 'thinner', at: Math.min(max, from.consistency + STEP) },
    { name: 'stiffer', at: Math.max(min, from.consistency - STEP) },
  ].flatMap(({ name, at }) => {
    const to = sketchMix(props.plan, at)
    const by = Math.round(Math.abs(at - from.consistency))
    return to && by > 0 ? [{ name: `${by} ${name}`, words: stepWordsOf(from, to, units) }] : []
  })
})
const WIDTH = 400
const HEIGHT = 26
const path = (points: { x: number; y: number }[]) =>
  points
    .map(({ x, y }, i) => `${i ? 'L' : 'M'}${rounded(x * WIDTH, 1)} ${rounded(HEIGHT - 3 - y * 20, 1)}`)
    .join(' ')
</script>

<template>
  <div v-if="now" class="offs">
    <div v-for="row in rows" :key="row.id" class="row">
      <span class="what">{{ row.label }} <b>{{ row.now }}</b></span>
      <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" preserveAspectRatio="none" aria-hidden="true">
        <path :d="`${path(row.points)} L${WIDTH} ${HEIGHT} L0 ${HEIGHT} Z`" class="area" />
        <path :d="path(row.points)" class="line" />
        <line :x1="row.at.x * WIDTH" :x2="row.at.x * WIDTH" y1="0" :y2="HEIGHT" class="here" />
      </svg>
      <span
        class="dot"
        :style="{
          left: `${row.at.x * 100}%`,
          bottom: `${((3 + row.at.y * 20) / HEIGHT) * 1.6}rem`,
        }"
        aria-hidden="true"
      />
    </div>
    <p v-for="s in steps" :key="s.name" class="step">
      <b>{{ s.name }}:</b> {{ s.words || 'no difference to speak of' }}
    </p>
  </div>
</template>

<style scoped>
.offs {
  display: grid;
  gap: 2px;
}
.row {
  position: relative;
}
.what {
  display: flex;
  justify-content: space-between;
  font-size: 0.9rem;
  line-height: 1.2;
}
svg {
  display: block;
  width: 100%;
  height: 1.6rem;
}
.area {
  fill: color-mix(in srgb, var(--wet-light) 45%, transparent);
}
.line {
  fill: none;
  stroke: var(--wet);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.here {
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 2 3;
  vector-effect: non-scaling-stroke;
}
.dot {
  position: absolute;
  width: 0.75rem;
  height: 0.75rem;
  border-radius: 50%;
  background: var(--ink);
  transform: translate(-50%, 50%);
}
.step {
  font-size: 0.9rem;
  margin-top: var(--s1);
}
</style>
