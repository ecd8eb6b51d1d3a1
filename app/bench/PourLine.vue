<script setup lang="ts">
/** One pour on the bench. Usage: <PourLine :id :piece :view :next /> */
import { computed } from 'vue'
import { STAGES, type PourView } from '#core/pour'
import type { NextThing } from '~/parts/pour/nextThing'

const props = defineProps<{ id: string; piece: string; view: PourView; next: NextThing }>()
const sign = computed(() => `${props.next.stage}, stage ${STAGES.indexOf(props.view.stage) + 1} of 9`)
</script>

<template>
  <NuxtLink :to="`/pour/${id}`" class="line" :class="{ late: next.late, hands: view.urgency === 'hands' }">
    <RingSign :rings="view.rings" :size="62" :label="sign" />
    <span class="what">
      <span class="piece">{{ piece }}</span>
      <span class="doing"><b>{{ next.stage }}</b> · {{ next.doing }}</span>
    </span>
    <span class="figure time" :class="{ small: next.time.length > 6 }">{{ next.time }}</span>
  </NuxtLink>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: center;
  gap: var(--s4);
  padding: 0.6rem var(--s3);
  border-bottom: 1px solid var(--line);
  text-decoration: none;
}
.line:hover {
  background: var(--plaster);
}
.what {
  display: grid;
  min-width: 0;
}
.piece {
  font-weight: 700;
  font-size: 1.15rem;
}
.doing {
  color: var(--ink-soft);
}
.time {
  font-size: 1.9rem;
  text-align: right;
  white-space: nowrap;
}
.time.small {
  font-size: 1.35rem;
}
.late .doing {
  color: var(--ink);
  font-weight: 700;
}
@media (max-width: 43rem) {
  .line {
    gap: var(--s3);
    padding: 0.55rem 0;
  }
  .time {
    font-size: 1.5rem;
  }
  .time.small {
    font-size: 1.1rem;
  }
}
</style>
