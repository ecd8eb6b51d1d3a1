<script setup lang="ts">
/** Weighings against the forecast. Usage: <DryingChart :drying="facts.drying" file-name="a-tile-drying" /> */
import { computed, useTemplateRef } from 'vue'
import { Scatter } from 'vue-chartjs'
import { dryingToCsv } from '#core/formats'
import type { PourOutlook } from '#core/pour'
import { svgOfChart, type Chart } from '~/parts/chart/chart'
import { lookColours } from '~/parts/chart/colours'
import { useUnits } from '~/parts/show/useUnits'
import { plain } from '~/parts/show/figures'
import { counted } from '~/parts/show/counted'
import { dryingRows, dryingSeries } from './dryingSeries'

const props = defineProps<{ drying: NonNullable<PourOutlook['drying']>; fileName: string }>()
const units = useUnits()
const colours = computed(lookColours)
const series = computed(() => dryingSeries(props.drying))
const data = computed(() => ({
  datasets: [
    {
      label: 'Weighed',
      data: series.value.weighings,
      backgroundColor: colours.value.ink,
      pointRadius: 7,
      showLine: false,
    },
    {
      label: 'Four times in five',
      data: series.value.slow,
      borderColor: colours.value.wetBand,
      borderWidth: 1,
      backgroundColor: `${colours.value.wetBand}80`,
      pointRadius: 0,
      showLine: true,
      fill: '+1',
    },
    {
      label: '',
      data: series.value.fast,
      borderColor: colours.value.wetBand,
      borderWidth: 1,
      pointRadius: 0,
      showLine: true,
    },
    {
      label: 'Expected',
      data: series.value.expected,
      borderColor: colours.value.wet,
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
      borderColor: colours.value.stone,
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
      title: { display: true, text: 'Days since it came out', color: colours.value.soft },
      grid: { color: colours.value.line },
      ticks: { color: colours.value.soft, callback: (value: string | number) => plain(Number(value)) },
    },
    y: {
      title: { display: true, text: 'Mass', color: colours.value.soft },
      grid: { color: colours.value.line },
      ticks: { color: colours.value.soft, callback: (value: string | number) => units.mass(Number(value)) },
    },
  },
  plugins: {
    // The band's other edge is no line of its own.
    legend: {
      labels: {
        boxWidth: 22,
        color: colours.value.ink,
        filter: (item: { text: string }) => item.text !== '',
      },
    },
    tooltip: {
      callbacks: { label: (item: { parsed: { y: number | null } }) => units.mass(item.parsed.y ?? 0) },
    },
  },
}))
const spoken = computed(
  () =>
    `${counted(series.value.weighings.length, 'weighing')}, the last ${units.mass(series.value.weighings.at(-1)?.y ?? 0)}; expected dry at ${units.mass(series.value.dryLineG)}`,
)
const chart = useTemplateRef<{ chart: Chart | null }>('chart')
const svg = () => svgOfChart(chart.value!.chart!, colours.value.ground)
const csv = () => dryingToCsv(dryingRows(series.value))
</script>

<template>
  <div class="chart">
    <Scatter ref="chart" :data="data" :options="options" :aria-label="spoken" role="img" />
  </div>
  <ChartFiles what="drying curve" :name="fileName" :svg="svg" :csv="csv" />
</template>

<style scoped>
.chart {
  height: 21rem;
  position: relative;
  overflow: hidden;
}
</style>
