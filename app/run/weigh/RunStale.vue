<script setup lang="ts">
/** Something counts for an earlier plan: the question stands where the way on is. Usage: <RunStale :run :stale @keep @drop /> */
import type { PourEvent, PourPlan } from '#core/pour'
import type { StandingRun } from '../useRun'

defineProps<{ run: StandingRun; stale: { events: PourEvent[]; plan: PourPlan | undefined } }>()
const emit = defineEmits<{ keep: []; drop: [] }>()
</script>

<template>
  <RunFrame :run>
    <StaleWeighings :events="stale.events" :was="stale.plan" :plan="run.record.plan" :now-ms="run.now" />
    <template #dock>
      <RunTools :run />
      <section class="pool" aria-label="Does it hold?">
        <button type="button" @click="emit('keep')">It holds for this plan</button>
        <button type="button" @click="emit('drop')">Take it back</button>
      </section>
    </template>
  </RunFrame>
</template>

<style scoped>
.pool {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--s4);
}
button {
  min-height: 6rem;
  border: 2px solid currentColor;
  border-radius: 1.4rem;
  background: transparent;
  color: inherit;
  font-family: var(--display);
  font-weight: 700;
  font-size: clamp(1.2rem, 4vw, 2.2rem);
  cursor: pointer;
}
</style>
