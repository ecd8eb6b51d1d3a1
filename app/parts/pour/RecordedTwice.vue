<script setup lang="ts">
/**
 * What two recorded who were apart: both, by name and time, and the one that is wrong can be taken back.
 * Usage: <RecordedTwice :facts :pour-id />
 */
import { computed } from 'vue'
import { recordedTwice, type PourFacts } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { momentText } from '~/parts/show/time'
import { eventWords } from '~/parts/words/events'
import { useClock } from '~/stores/bench'
import { usePours } from '~/stores/pours'

const props = defineProps<{ facts: Pick<PourFacts, 'live'>; pourId: string }>()
const pours = usePours()
const units = useUnits()
const openedMs = useClock().nowMs()
const twice = computed(() => recordedTwice(props.facts.live))
const takeBack = (targetId: string) => void pours.record(props.pourId, { type: 'void', targetId })
</script>

<template>
  <section v-if="twice.length > 0" class="twice" aria-label="Recorded by two">
    <p><b>Two recorded the same, apart from each other.</b> The earlier counts. Take back what is wrong.</p>
    <ul>
      <li v-for="of in twice" :key="`${of.type} ${of.batch}`">
        <b>{{ eventWords(of.events[0]!.body, units) }}</b>
        <button
          v-for="event in of.events"
          :key="event.id"
          type="button"
          class="ghost"
          @click="takeBack(event.id)"
        >
          Not {{ event.who }}, {{ momentText(event.occurredAtMs, openedMs) }}
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.twice {
  border-left: 6px solid var(--hot);
  background: var(--hot-light);
  color: var(--ink);
  padding: var(--s3) var(--s4);
  display: grid;
  gap: var(--s2);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s3);
  align-items: center;
}
</style>
