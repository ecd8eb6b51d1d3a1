<script setup lang="ts">
/**
 * Where soak, stirring and pouring do not fit the working time: what would help, what it gains and costs; one press takes
 * it. Usage: <PlanRemedies :remedies @take="(change) => …" />
 */
import { computed } from 'vue'
import type { Remedy, RemedyChange } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { remedyWords } from './remedyWords'

const props = defineProps<{ remedies: readonly Remedy[] }>()
const emit = defineEmits<{ take: [change: RemedyChange] }>()
const units = useUnits()
const rows = computed(() => props.remedies.map((r) => ({ ...r, words: remedyWords(r, units) })))
</script>

<template>
  <section class="slab" aria-label="What gives time to pour">
    <ul>
      <li v-for="r in rows" :key="r.change.id">
        <button type="button" class="outline-button" @click="emit('take', r.change)">
          {{ r.words.take }}
        </button>
        <span
          ><b>{{ r.words.gain }}</b><template v-if="!r.enough">, not yet enough</template>.
          {{ r.words.cost }}</span
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
  gap: var(--s1);
  line-height: 1.3;
}
li {
  display: grid;
  grid-template-columns: minmax(7rem, 9rem) 1fr;
  gap: var(--s2) var(--s3);
  align-items: center;
}
.outline-button {
  padding-inline: var(--s2);
}
@media (max-width: 43rem) {
  li {
    grid-template-columns: 1fr;
    gap: var(--s1);
  }
}
</style>
