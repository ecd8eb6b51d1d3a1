<script setup lang="ts">
/** The plan beside what happened. Usage: <ComparisonTable :facts="facts" /> */
import { computed } from 'vue'
import type { PourOutlook } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { comparisonOf } from './comparison'

const props = defineProps<{ facts: PourOutlook }>()
const units = useUnits()
const rows = computed(() => comparisonOf(props.facts, units))
</script>

<template>
  <table>
    <thead>
      <tr>
        <th scope="col"><span class="visually-hidden">What</span></th>
        <th scope="col">Plan</th>
        <th scope="col">Happened</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.what">
        <th scope="row">{{ row.what }}</th>
        <td>{{ row.planned }}</td>
        <td><b v-if="row.off">{{ row.happened }}, off</b><template v-else>{{ row.happened }}</template></td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: right;
  padding: 0.35rem 0 0.35rem var(--s3);
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
@media (max-width: 43rem) {
  th,
  td {
    padding-left: var(--s1);
    overflow-wrap: anywhere;
  }
}
th[scope='row'] {
  text-align: left;
  padding-left: 0;
  font-weight: 600;
}
</style>
