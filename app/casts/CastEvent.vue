<script setup lang="ts">
import type { PourEvent } from '#core/pour'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { eventWords } from '~/parts/words/events'

/** A component of its own, so that a long record is not written anew for each event that comes to it. */
defineProps<{
  event: PourEvent
  /** Any moment of today. */
  todayMs: number
}>()
const units = useUnits()
</script>

<template>
  <li :class="event.body.type">
    <span class="soft">{{ momentText(event.occurredAtMs, todayMs) }}</span>
    <span>{{ eventWords(event.body, units) }}</span>
    <span class="soft">{{ event.who }}</span>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 9.2rem 1fr auto;
  gap: var(--s3);
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}
.note span:nth-child(2) {
  font-style: italic;
}
.finished,
.demoulded {
  font-weight: 700;
}
li span {
  min-width: 0;
}
@media (max-width: 60rem) {
  li {
    grid-template-columns: 6.5rem minmax(0, 1fr) auto;
    gap: var(--s2);
  }
}
@media (max-width: 43rem) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  li :nth-child(2) {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
</style>
