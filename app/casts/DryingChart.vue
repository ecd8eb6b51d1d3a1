<script setup lang="ts">
/** Weighings against the forecast. Usage: <DryingChart :drying="facts.drying" /> */
import {
  Chart,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  ScatterController,
  LineController,
  Tooltip,
} from 'chart.js'
import { computed } from 'vue'
import { Scatter } from 'vue-chartjs'
import type { PourOutlook } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { plain } from '~/parts/show/figures'
import { counted } from '~/parts/show/counted'
import { dryingSeries } from './dryingChart'

Chart.register(Legend, LinearScale, LineController, LineElement, PointElement, ScatterController, Tooltip)
Chart.defaults.font.family = '"Atkinson Hyperlegible Next Variable", sans-serif'
Chart.defaults.font.size = 15
Chart.defaults.color = '#13262c'

const props = defineProps<{ drying: NonNullable<PourOutlook['drying']> }>()
const units = useUnits()
const series = computed(() => dryingSeries(props.drying))
const data = computed(() => ({
  datasets: [
    {
      label: 'Weighed',
      data: series.value.weighings,
      backgroundColor: '#13262c',
      pointRadius: 7,
      showLine: false,
    },
    {
      label: 'Expected',
      data: series.value.expected,
      borderColor: '#1b4c5b',
      borderWidth: 3,
      pointRadius: 0,
      showLine: true,
    },
    {
      label: 'Dry',
      data: [
        { x: 0, y: series.value.dryLineG },
        { x: series.value.endDay, y: series.value.dryLineG },
      ],
      borderColor: '#70766d',
      borderDash: [8, 6],
      borderWidth: 2,
      pointRadius: 0,
      showLine: true,
    },
  ],
}))
const options = computed(() => ({
  responsive: true,
  maintainAspectRatio: false,
  animation: false as const,
  scales: {
    x: {
      min: 0,
      max: series.value.endDay,
      title: { display: true, text: 'Days since it came out' },
      grid: { color: '#d5cebf' },
      ticks: { callback: (value: string | number) => plain(Number(value)) },
    },
    y: {
      title: { display: true, text: 'Mass' },
      grid: { color: '#d5cebf' },
      ticks: { callback: (value: string | number) => units.mass(Number(value)) },
    },
  },
  plugins: {
    legend: { labels: { boxWidth: 22 } },
    tooltip: {
      callbacks: { label: (item: { parsed: { y: number | null } }) => units.mass(item.parsed.y ?? 0) },
    },
  },
}))
const spoken = computed(
  () =>
    `${counted(series.value.weighings.length, 'weighing')}, the last ${units.mass(series.value.weighings.at(-1)?.y ?? 0)}; expected dry at ${units.mass(series.value.dryLineG)}`,
)
</script>

<template>
  <div class="chart">
    <Scatter :data="data" :options="options" :aria-label="spoken" role="img" />
  </div>
</template>

<style scoped>
.chart {
  height: 21rem;
  position: relative;
  overflow: hidden;
}
</style>
