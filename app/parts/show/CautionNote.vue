<script setup lang="ts">
/** One caution, at the step where the harm is. Usage: <CautionNote id="dust" /> */
import { TriangleAlert } from '@lucide/vue'
import { useUnits } from './useUnits'
import { CAUTIONS, type CautionId } from './cautions'

defineProps<{ id: CautionId }>()
const units = useUnits()
</script>

<template>
  <p class="caution" role="note">
    <TriangleAlert :size="22" aria-hidden="true" />
    <span
      ><strong>{{ CAUTIONS[id].title }}.</strong> {{ CAUTIONS[id].text(units.temp) }}</span
    >
  </p>
</template>

<style scoped>
.caution {
  display: flex;
  gap: var(--s3);
  align-items: flex-start;
  background: var(--hot-light);
  color: var(--ink);
  border-left: 6px solid var(--hot);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
  font-size: 0.95rem;
}
.caution svg {
  flex: none;
  color: var(--hot);
}
@media (max-width: 43rem) {
  .caution {
    font-size: 0.84rem;
    line-height: 1.3;
  }
}
</style>
