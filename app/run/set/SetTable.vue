<script setup lang="ts">
/** The setting's figures for who cannot see its curve or its section. Usage: <SetTable :curve :green :now-s :at /> */
import { computed } from 'vue'
import { GREEN_MARK_IDS, type GreenMark } from '#core/demould'
import type { SetCurve } from '#core/forecast'
import type { Range } from '#core/provenance'
import { atDepth } from '~/parts/set/section'
import { rowAt, setRows } from '~/parts/set/setSeries'
import { figure, percent } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import { GREEN_WORDS } from '~/parts/words/demould'

const props = defineProps<{
  curve: SetCurve
  green: Record<GreenMark, Range>
  nowS: number
  /** A moment of its setting in words. */
  at: (timeS: number) => string
}>()
const units = useUnits()
/** Of the way from the open face or the middle to the mould. */
const DEPTHS = [0, 0.25, 0.5, 0.75, 1]
const byDepth = computed(() => {
  const { tempByDepth, alphaByDepth } = props.curve
  const row = rowAt(props.curve, props.nowS)
  return DEPTHS.map((depth) => ({
    depth,
    tempC: atDepth(tempByDepth[row]!, depth),
    setPct: 100 * atDepth(alphaByDepth[row]!, depth),
  }))
})
</script>

<template>
  <table>
    <caption>
      Now, from the open face or the middle to the mould
    </caption>
    <thead>
      <tr>
        <th>Depth</th>
        <th>Temperature</th>
        <th>Set</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in byDepth" :key="row.depth">
        <td>{{ percent(row.depth) }}</td>
        <td>{{ units.temp(row.tempC) }}</td>
        <td>{{ figure(row.setPct) }} %</td>
      </tr>
    </tbody>
  </table>
  <table>
    <caption>
      What it bears
    </caption>
    <tbody>
      <tr v-for="mark in GREEN_MARK_IDS" :key="mark">
        <th scope="row">{{ GREEN_WORDS[mark].bears }}</th>
        <td>likely {{ at(green[mark].mid) }}, surely {{ at(green[mark].high) }}</td>
      </tr>
    </tbody>
  </table>
  <table>
    <caption>
      Along its curve
    </caption>
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
  margin-bottom: var(--s4);
}
caption {
  text-align: left;
  font-weight: 700;
}
th[scope='row'] {
  text-align: left;
  font-weight: 400;
}
th,
td {
  text-align: right;
  padding: 2px var(--s1);
}
</style>
