<script setup lang="ts">
/**
 * Where soak, stirring and pouring do not fit the working time: what would help, what it gains and costs; one press takes
 * it. Usage: <PlanRemedies :plan :outcome @take="(change) => …" />
 */
import { computed } from 'vue'
import { remediesFor, type PlanOutcome, type PourPlan, type RemedyChange } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { remedyWords } from './remedyWords'

const props = defineProps<{ plan: PourPlan; outcome: PlanOutcome }>()
const emit = defineEmits<{ take: [change: RemedyChange] }>()
const units = useUnits()
const remedies = computed(() =>
  remediesFor(props.plan, props.outcome).map((r) => ({ ...r, words: remedyWords(r, units) })),
)
</script>

<template>
  <section v-if="remedies.length > 0" class="slab" aria-labelledby="remedies-title">
    <h2 id="remedies-title">What gives time to pour</h2>
    <ul>
      <li v-for="r in remedies" :key="r.change.id">
        <button type="button" class="outline-button" @click="emit('take', r.change)">
          {{ r.words.take }}
        </button>
        <span
          ><b>{{ r.words.gain }}</b
          ><template v-if="!r.enough">, not yet enough</template>. {{ r.words.cost }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s3);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s3);
}
li {
  display: grid;
  grid-template-columns: minmax(9rem, 12rem) 1fr;
  gap: var(--s3);
  align-items: center;
}
@media (max-width: 43rem) {
  li {
    grid-template-columns: 1fr;
    gap: var(--s1);
  }
}
</style>
