<script setup lang="ts">
/** The setting's figures for who cannot see its curve. Usage: <SetTable :curve="curve" /> */
import type { SetCurve } from '#core/forecast'
import { setRows } from '~/parts/set/setSeries'
import { figure } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'

defineProps<{ curve: SetCurve }>()
const units = useUnits()
</script>

<template>
  <table>
    <thead>
      <tr>
        <th>Minute</th>
        <th>Inside</th>
        <th>Likely</th>
        <th>Surface</th>
        <th>Set</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in setRows(curve, 10)" :key="row.minute">
        <td>{{ row.minute }}</td>
        <td>{{ units.temp(row.coreC) }}</td>
        <td>{{ units.temp(row.lowC) }} – {{ units.temp(row.highC) }}</td>
        <td>{{ units.temp(row.surfaceC) }}</td>
        <td>{{ figure(row.setPct) }} %</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 0.95rem;
}
th,
td {
  text-align: right;
  padding: 2px var(--s1);
}
</style>
