<script setup lang="ts">
/** Where else this pour can be seen, printed or changed. Usage: <RunLinks :run /> */
import { mixesInBags } from './knock/advance'
import type { StandingRun } from './useRun'

defineProps<{ run: StandingRun }>()
</script>

<template>
  <nav class="links" aria-label="This pour">
    <NuxtLink :to="`/casts/${run.id}`">Its record</NuxtLink>
    <NuxtLink v-if="run.planOpen || run.mode === 'knock'" :to="`/pour/${run.id}/card`"
      >Weigh-out card</NuxtLink
    >
    <NuxtLink v-if="run.mode === 'knock' && mixesInBags(run.record.plan)" :to="`/pour/${run.id}/labels`"
      >Labels</NuxtLink
    >
    <NuxtLink v-if="run.planOpen" :to="{ path: '/plan', query: { pour: run.id } }">Change the plan</NuxtLink>
  </nav>
</template>

<style scoped>
.links {
  display: flex;
  flex-direction: column;
  align-items: start;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
@media (max-width: 43rem) {
  .links {
    flex-flow: row wrap;
    gap: 0 var(--s4);
  }
}
</style>
