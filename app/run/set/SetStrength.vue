<script setup lang="ts">
/**
 * How strong it is on the way to set, with what it bears then: a bar with the marks, and the next of them with its time.
 * Usage: <SetStrength :facts :curve :now-s :at />
 */
import { computed } from 'vue'
import { GREEN_MARKS, GREEN_MARK_IDS, greenStrength } from '#core/demould'
import type { SetCurve } from '#core/forecast'
import type { PourOutlook } from '#core/pour'
import { rowAt } from '~/parts/set/setSeries'
import { percent } from '~/parts/show/figures'
import { GREEN_WORDS } from '~/parts/words/demould'

const props = defineProps<{
  facts: PourOutlook
  curve: SetCurve
  nowS: number
  /** A moment of its setting in words. */
  at: (timeS: number) => string
}>()

const green = computed(() => props.facts.inHand.green)
const next = computed(() => GREEN_MARK_IDS.find((mark) => green.value[mark].high > props.nowS))
const strength = computed(() => {
  const by = greenStrength(Math.min(...(props.curve.alphaByDepth[rowAt(props.curve, props.nowS)] ?? [0])))
  // What a look holds up, the bar does not run ahead of.
  const reached = GREEN_MARK_IDS.find((mark) => green.value[mark].mid > props.nowS)
  return reached ? Math.min(by, GREEN_MARKS[reached]) : by
})
</script>

<template>
  <div class="strength" data-testid="strength">
    <p>
      <b>{{ percent(strength) }}</b> of its set strength<template v-if="next"
        >; {{ GREEN_WORDS[next].short }} from <b>{{ at(green[next].high) }}</b></template
      >
    </p>
    <div
      class="bar"
      role="meter"
      aria-label="Strength on the way to set"
      :aria-valuenow="Math.round(100 * strength)"
      aria-valuemin="0"
      aria-valuemax="100"
    >
      <span class="fill" :style="{ width: `${100 * strength}%` }" />
      <i v-for="mark in GREEN_MARK_IDS" :key="mark" :style="{ left: `${100 * GREEN_MARKS[mark]}%` }" />
    </div>
  </div>
</template>

<style scoped>
.strength {
  display: grid;
  gap: 2px;
}
.bar {
  position: relative;
  height: 12px;
  border-radius: 6px;
  border: 2px solid currentColor;
  overflow: hidden;
}
.fill {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--warm-light);
}
i {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  background: currentColor;
}
@media (forced-colors: active) {
  .fill {
    background: CanvasText;
    forced-color-adjust: none;
  }
}
</style>
