<script setup lang="ts">
/** How hot its surface gets from here on, and what that does to skin. Usage: <SetBurn :facts :curve :now-ms /> */
import { computed } from 'vue'
import type { SetCurve } from '#core/forecast'
import { burnHazard, contactTimesS, warmEndC } from '#core/heat'
import { problemOf, type PourOutlook } from '#core/pour'
import { curveAt } from '~/parts/set/setSeries'
import { durationText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { BURN_WORDS } from '~/parts/words/demould'
import { useSettingTime } from './useSettingTime'

const props = defineProps<{ facts: PourOutlook; curve: SetCurve | undefined; nowMs: number }>()
const units = useUnits()
const { nowS } = useSettingTime(props)

/** Shown whatever the forecast says, for the hottest that it may get from here on, by the warm end of that. */
const burn = computed(() => {
  const { marks } = props.facts.inHand
  const isPast = nowS.value > marks.surfacePeakS
  const nowC = props.curve && curveAt(props.curve, props.curve.surfaceC, nowS.value)
  const likelyC = isPast ? (nowC ?? 0) : marks.surfacePeakC
  const hottestC = warmEndC(likelyC, problemOf(props.facts, props.facts.inHand).around.airTempC)
  const hazard = burnHazard(hottestC)
  if (hazard === 'none') return ''
  const { reddensS, burntS } = contactTimesS(hottestC)!
  return `${BURN_WORDS[hazard]}: its surface ${isPast ? 'is at' : 'gets to'} about ${units.temp(likelyC)}, perhaps ${units.temp(hottestC)}. Skin left on that reddens in ${durationText(Math.max(1, reddensS))} and is burnt in ${durationText(burntS)} (tests on skin, 1947).`
})
</script>

<template>
  <p v-if="burn" class="burn">{{ burn }}</p>
</template>

<style scoped>
.burn {
  background: var(--hot-light);
  color: var(--ink);
  border-left: 6px solid var(--hot);
  border-radius: 0.5rem;
  padding: var(--s1) var(--s3);
  font-weight: 600;
}
</style>
