<script setup lang="ts">
/** What is wrong with the plan, or may go wrong with it. Usage: <PlanIssues :plan :evaluation :stale /> */
import { computed } from 'vue'
import type { PlanEvaluation, PourPlan } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { issueWords } from '~/parts/words/mix'
import { PURPOSE_WORDS } from '~/parts/words/mould'
import { SUITS_WORDS } from '../words'

const props = defineProps<{
  plan: PourPlan
  evaluation: PlanEvaluation
  /** Something cannot be read: the figures are from before it. */
  stale: boolean
}>()
const units = useUnits()
/** What it is not made for comes with what is wrong; the rest stands with what it becomes. */
const unsuited = computed(() =>
  props.evaluation.ok ? props.evaluation.outcome.suits.filter((s) => s.grade !== 'good') : [],
)
/** More than the spare may be missing. */
const runsShort = computed(() => {
  const { plan, evaluation } = props
  const plusMinusMl = plan.mould.plusMinusMl ?? 0
  if (!evaluation.ok || plusMinusMl <= evaluation.outcome.leftover.leftMl) return undefined
  return { plusMinusMl, leftMl: evaluation.outcome.leftover.leftMl }
})
</script>

<template>
  <p v-if="stale" class="warn" role="status">
    Something in the plan cannot be read yet. These are the last figures that could.
  </p>
  <p v-for="issue in evaluation.issues" :key="issue.code" class="warn" :class="issue.severity" role="status">
    {{ issueWords(issue, units) }}
  </p>
  <p v-for="s in unsuited" :key="s.purpose" class="warn" :class="{ error: s.grade === 'poor' }">
    {{ PURPOSE_WORDS[s.purpose] }}: {{ SUITS_WORDS[s.code] }}
  </p>
  <p v-if="runsShort" class="warn">
    The volume is known to ± {{ units.roughVolume(runsShort.plusMinusMl) }}, the spare is
    {{ units.roughVolume(runsShort.leftMl) }}: it may run short. Measure better, or take more spare.
  </p>
</template>

<style scoped>
.warn {
  background: var(--warm-light);
  border-left: 6px solid var(--warm);
  border-radius: 0.6rem;
  padding: var(--s1) var(--s3);
  font-weight: 600;
}
.warn.error {
  background: var(--hot-light);
  border-color: var(--hot);
}
</style>
