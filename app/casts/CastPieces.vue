<script setup lang="ts">
/** The casts of one pour, each with what became of it. Usage: <CastPieces :facts /> */
import { computed } from 'vue'
import { faultsOf, type PourOutlook } from '#core/pour'
import { FAULT_WORDS } from '~/parts/words/faults'
import { OUTCOME_WORDS } from '~/parts/words/pieces'
import { VERDICT_WORDS } from '~/parts/words/pour'

const props = defineProps<{ facts: PourOutlook }>()
const byBowl = computed(() => props.facts.pieces.some((p) => p.bowls.length > 0))
const byMould = computed(() => new Set(props.facts.pieces.map((p) => p.name)).size > 1)
const rows = computed(() => {
  const noted = faultsOf(props.facts)
  return props.facts.pieces.map((p) => ({
    ...p,
    bowl: p.bowls.map((b) => b + 1).join(' and '),
    came: p.out ? `${OUTCOME_WORDS[p.out.outcome]}${p.out.gripped ? ', gripped' : ''}` : 'still in its mould',
    is: p.verdict ? VERDICT_WORDS[p.verdict.verdict] : '',
    wrong: [
      ...new Set(noted.filter((f) => f.pieces.includes(p.number)).map((f) => FAULT_WORDS[f.kind])),
    ].join(', '),
  }))
})
</script>

<template>
  <section class="slab" aria-labelledby="pieces-title">
    <h2 id="pieces-title">Its {{ facts.pieces.length }} casts</h2>
    <table>
      <thead>
        <tr>
          <th scope="col">No.</th>
          <th v-if="byMould" scope="col">Mould</th>
          <th v-if="byBowl" scope="col">Bowl</th>
          <th scope="col">Came out</th>
          <th scope="col">Is</th>
          <th scope="col">What is wrong</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.number">
          <th scope="row">{{ row.number }}</th>
          <td v-if="byMould">{{ row.name }}</td>
          <td v-if="byBowl">{{ row.bowl }}</td>
          <td>{{ row.came }}</td>
          <td>{{ row.is }}</td>
          <td>{{ row.wrong }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: var(--s1) var(--s2) var(--s1) 0;
  border-bottom: 1px solid var(--line);
}
thead th {
  font-size: 0.94rem;
}
</style>
