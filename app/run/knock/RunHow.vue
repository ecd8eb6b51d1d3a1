<script setup lang="ts">
/** One step in full: until which sign, how long, with what, and what comes next. Usage: <RunHow :facts :words :now-ms /> */
import { computed } from 'vue'
import { isLastStep, stirringOf, usualTimeS, type PourOutlook } from '#core/pour'
import { durationText, minutesText, momentText } from '~/parts/show/time'
import type { StepWords } from '~/parts/words/steps'
import { stepTitle } from '~/parts/words/stepTitles'

const props = defineProps<{ facts: PourOutlook; words: StepWords; nowMs: number }>()

const time = computed(() => {
  const { leastS, mostS } = usualTimeS(props.facts)
  if (leastS !== undefined && leastS === mostS) return durationText(leastS)
  const least = leastS === undefined ? '' : `at least ${durationText(leastS)}`
  return [least, mostS === undefined ? '' : `at most ${durationText(mostS)}`].filter(Boolean).join(', ')
})
const then = computed(() => {
  const { steps, stepsDone, plan } = props.facts
  const next = steps[stepsDone.lastIndexOf(true) + 2]
  return next && !isLastStep(next) ? stepTitle(next, plan) : ''
})
const stirring = computed(() => stirringOf(props.facts, props.nowMs))
</script>

<template>
  <p v-if="stirring" class="stirring" data-testid="stirring">
    <template v-if="stirring.leftS > 0">
      Stopped now, it pours for at least <b>{{ minutesText(stirring.leftS) }}</b>. One more minute of stirring
      costs <b>{{ minutesText(stirring.minuteCostS) }}</b> of that.
      <template v-if="stirring.stopByMs > nowMs"
        >Stop by {{ momentText(stirring.stopByMs, nowMs) }}.</template
      >
      <template v-else>Stop: what is left is no more than the pour needs.</template>
    </template>
    <template v-else>Stop and pour: its working time may be over.</template>
  </p>
  <p class="in-full">
    <span v-if="words.until">Until <b>{{ words.until }}</b></span>
    <span v-if="time"><b>{{ time }}</b></span>
    <span v-if="words.gear">With <b>{{ words.gear }}</b></span>
    <span v-if="then">Then <b>{{ then }}</b></span>
  </p>
</template>

<style scoped>
.in-full {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s4);
  max-width: 64ch;
}
.in-full span::first-letter {
  text-transform: uppercase;
}
.stirring {
  font-size: 1.15rem;
}
</style>
