<script setup lang="ts">
/** One caution, at the step where the harm is. Usage: <CautionNote id="dust" />; `folded` once it was read: one line that opens. */
import { TriangleAlert } from '@lucide/vue'
import { useUnits } from './useUnits'
import { CAUTIONS, type CautionId } from './cautions'

defineProps<{ id: CautionId; folded?: boolean }>()
const units = useUnits()
</script>

<template>
  <details v-if="folded" class="caution">
    <summary>
      <TriangleAlert :size="22" aria-hidden="true" /> <strong>{{ CAUTIONS[id].title }}</strong>
    </summary>
    <p>{{ CAUTIONS[id].text(units.temp) }}</p>
  </details>
  <p v-else class="caution open" role="note">
    <TriangleAlert :size="22" aria-hidden="true" />
    <span><strong>{{ CAUTIONS[id].title }}.</strong> {{ CAUTIONS[id].text(units.temp) }}</span>
  </p>
</template>

<style scoped>
.caution {
  --ring: var(--ring-on-light);
  background: var(--hot-light);
  color: var(--ink);
  border-left: 6px solid var(--hot);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
  font-size: 0.95rem;
  max-width: none;
}
.open,
summary {
  display: flex;
  gap: var(--s3);
  align-items: flex-start;
}
details.caution {
  padding-block: 0;
}
details[open] {
  padding-bottom: var(--s2);
}
summary {
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}
summary::after {
  content: '▾';
  margin-left: auto;
}
.caution p {
  max-width: none;
}
.caution svg {
  flex: none;
  color: var(--hot);
}
@media (max-width: 43rem) {
  .caution {
    font-size: 0.9rem;
    line-height: 1.3;
  }
}
</style>
