<script setup lang="ts">
/** What went wrong last time, where it can be kept from happening again. Usage: <RunHeed :plan :stage /> */
import { computed } from 'vue'
import { heedAt, type PourPlan, type Stage } from '#core/pour'
import { CAUSE_WORDS } from '~/parts/words/causes'

const props = defineProps<{ plan: PourPlan; stage: Stage }>()
const causes = computed(() => heedAt(props.plan, props.stage))
</script>

<template>
  <p v-for="cause in causes" :key="cause" class="heed" role="note">
    <b>Last time: {{ CAUSE_WORDS[cause].name.toLowerCase() }}.</b> {{ CAUSE_WORDS[cause].next }}
  </p>
</template>

<style scoped>
.heed {
  background: var(--chalk);
  color: var(--ink);
  border-left: 6px solid var(--warm);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
}
</style>
