<script setup lang="ts">
/** What presses out there, counted down beside the set: by when to mix, then whether it is out in time. Usage: <RunDeadline :facts :now-ms /> */
import { computed } from 'vue'
import { deadlineOf, type PourOutlook } from '#core/pour'
import { MS_PER } from '#core/units'
import { clockText, durationText } from '~/parts/show/time'
import { DEADLINE_WORDS, chanceWords } from '~/parts/words/deadline'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const deadline = computed(() => props.facts.plan.deadline)
const isOut = computed(() => props.facts.pieces.every((p) => p.out))
const mixed = computed(() => props.facts.settingStartMs)
const answer = computed(
  () => deadline.value && deadlineOf(deadline.value, props.facts.inHand, mixed.value ?? props.nowMs),
)
const leftS = computed(() => ((deadline.value?.leaveAtMs ?? 0) - props.nowMs) / MS_PER.s)
const says = computed(() => {
  if (!answer.value) return ''
  if (leftS.value <= 0)
    return 'It is time to go. Free its sides, lift it with its ground on something flat, and take it to the warm.'
  if (mixed.value === undefined)
    return answer.value.fits
      ? `Half the powder in by ${clockText(answer.value.mixByMs)}.`
      : 'It does not fit any more: lift it with its ground, or leave it at the photographs.'
  return answer.value.fits
    ? `Out at ${clockText(answer.value.outAtMs)}, ${durationText(answer.value.spareS)} to spare.`
    : `By its advice it is out ${durationText(-answer.value.spareS)} too late: ready in time ${chanceWords(answer.value.chance)}. Free its sides, tunnel under it, lift it with its ground into a box.`
})
</script>

<template>
  <section v-if="deadline && answer && !isOut" class="deadline" aria-label="By when one must go">
    <p>
      <b>{{ DEADLINE_WORDS[deadline.why] }}, {{ clockText(deadline.leaveAtMs) }}:</b>
      <span class="figure">{{ leftS > 0 ? durationText(leftS) : 'now' }}</span>
    </p>
    <p>{{ says }}</p>
  </section>
</template>

<style scoped>
.deadline {
  border-left: 6px solid currentColor;
  padding: var(--s2) var(--s3);
  display: grid;
  gap: var(--s1);
}
.figure {
  margin-left: var(--s2);
  font-size: 1.5rem;
}
</style>
