<script setup lang="ts">
/**
 * Weighed or mixed for the plan as it was before somebody changed it: what that was, what differs, and the question
 * whether it holds; the answers stand where the target is. Usage: <StaleWeighings :events :was :plan :now-ms />
 */
import { computed } from 'vue'
import { evaluatePlan, type PourEvent, type PourPlan } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { comparePlans } from '~/parts/mix/planComparison'
import { momentText } from '~/parts/show/time'
import { eventWords } from '~/parts/words/events'

const props = defineProps<{
  events: readonly PourEvent[]
  /** The plan they were recorded against, and the one that stands. */
  was: PourPlan | undefined
  plan: PourPlan
  nowMs: number
}>()
const units = useUnits()
const differences = computed(() => {
  if (!props.was) return []
  const plans = [props.was, props.plan].map((plan) => ({ plan, evaluation: evaluatePlan(plan) }))
  return comparePlans(plans, units).filter((row) => row.differs)
})
</script>

<template>
  <section class="stale" aria-labelledby="stale-title">
    <h1 id="stale-title">The plan was changed after this was recorded. Does it hold?</h1>
    <ul>
      <li v-for="e in events" :key="e.id">
        {{ momentText(e.occurredAtMs, nowMs) }} {{ eventWords(e.body, units) }}
        <template v-if="e.who">({{ e.who }})</template>
      </li>
    </ul>
    <table v-if="differences.length > 0">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">What</span></th>
          <th scope="col">Then</th>
          <th scope="col">Now</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in differences" :key="row.what">
          <th scope="row">{{ row.what }}</th>
          <td>{{ row.values[0] }}</td>
          <td>{{ row.values[1] }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.stale {
  display: grid;
  gap: var(--s2);
  padding: var(--s3) var(--s4);
  border-left: 6px solid var(--warm);
  border-radius: 0.6rem;
  background: var(--warm-light);
  color: var(--ink);
}
ul {
  margin: 0;
  padding-left: 1.2rem;
}
th {
  text-align: left;
  font-weight: 600;
  padding-right: var(--s4);
}
td {
  padding-right: var(--s4);
  white-space: nowrap;
}
</style>
