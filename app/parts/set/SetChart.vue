<script setup lang="ts">
/**
 * Temperature of a setting piece: expected with its band, measured, what was felt and when, now, and when it comes out.
 * Arrow keys move along it, plus and minus zoom. Usage: <SetChart :curve :traces :start-ms :now-ms :marks :cues :spoken :file-name />
 */
import { computed, useTemplateRef } from 'vue'
import { Scatter } from 'vue-chartjs'
import type { SetCurve } from '#core/forecast'
import { settingToCsv } from '#core/formats'
import type { ProbeTrace } from '#core/pour'
import { svgOfChart, type Chart } from '~/parts/chart/chart'
import { lookColours } from '~/parts/chart/colours'
import { figure, plain } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import { setRows, setSeries } from './setSeries'
import { LABELS_ABOVE_PX, uprightLines } from './uprightLines'
import { useChartWindow } from './useChartWindow'

const props = defineProps<{
  curve: SetCurve
  /** Another curve to lay beside it. */
  other?: { label: string; curve: SetCurve }
  traces: readonly ProbeTrace[]
  startMs: number
  /** Undefined where nothing has been poured yet. */
  nowMs?: number
  /** Upright lines, minutes since the powder met the water. */
  marks: readonly { atMin: number; label: string; warm: boolean }[]
  /** What was seen or felt, by its time. */
  cues: readonly { atMin: number; label: string }[]
  spoken: string
  fileName: string
}>()
const units = useUnits()
const nowMinute = computed(() =>
  props.nowMs === undefined ? undefined : (props.nowMs - props.startMs) / 60_000,
)
const series = computed(() => setSeries(props.curve, props.traces, props.startMs))

const colours = computed(lookColours)

const { shown, isWhole, zoom, move, key } = useChartWindow(
  () => Math.ceil(props.curve.timeS.at(-1)! / 60),
  () => nowMinute.value,
)
const uprights = uprightLines(() => [
  ...(nowMinute.value === undefined
    ? []
    : [{ atMin: nowMinute.value, label: 'now', colour: colours.value.ink, dash: [] }]),
  ...props.marks.map(({ atMin, label, warm }) => ({
    atMin,
    label,
    colour: warm ? colours.value.warm : colours.value.soft,
    dash: [6, 5],
  })),
])

const at = (atMin: number) => {
  const { core } = series.value
  const next = core.find((p) => p.x >= atMin)
  return (next ?? core.at(-1)!).y
}
const line = (label: string, data: { x: number; y: number }[], colour: string, more: object = {}) => ({
  label,
  data,
  borderColor: colour,
  backgroundColor: colour,
  borderWidth: 3,
  pointRadius: 0,
  pointStyle: 'line' as const,
  showLine: true,
  order: 1,
  ...more,
})
const data = computed(() => ({
  datasets: [
    line('Likely', series.value.high, colours.value.warmBand, {
      borderWidth: 0,
      fill: '+1',
      backgroundColor: `${colours.value.warmBand}b0`,
      pointStyle: 'rect',
      order: 3,
    }),
    line('', series.value.low, colours.value.warmBand, { borderWidth: 0, order: 3 }),
    line('Inside', series.value.core, colours.value.warm),
    line('Surface', series.value.surface, colours.value.wet, { borderDash: [7, 5] }),
    ...(props.other
      ? [
          line(props.other.label, setSeries(props.other.curve, [], props.startMs).core, colours.value.ink, {
            borderDash: [3, 5],
          }),
        ]
      : []),
    ...(series.value.measured.length > 0
      ? [
          line('Measured', series.value.measured, colours.value.ink, {
            showLine: false,
            pointRadius: 2.5,
            pointStyle: 'circle',
            order: 2,
          }),
        ]
      : []),
    ...(props.cues.length > 0
      ? [
          line(
            'Felt or seen',
            props.cues.map((c) => ({ x: c.atMin, y: at(c.atMin) })),
            colours.value.ink,
            { showLine: false, pointRadius: 8, pointStyle: 'rectRot', order: 0 },
          ),
        ]
      : []),
  ],
}))
const options = computed(() => ({
  responsive: true,
  maintainAspectRatio: false,
  animation: false as const,
  interaction: { mode: 'nearest' as const, intersect: false },
  layout: { padding: { top: LABELS_ABOVE_PX } },
  scales: {
    x: {
      min: shown.value.from,
      max: shown.value.to,
      title: { display: true, text: 'Minutes since powder met water', color: colours.value.soft },
      grid: { color: colours.value.line },
      ticks: { color: colours.value.soft, callback: (v: string | number) => plain(Number(v)) },
    },
    y: {
      grid: { color: colours.value.line },
      ticks: { color: colours.value.soft, callback: (v: string | number) => units.temp(Number(v)) },
    },
  },
  plugins: {
    legend: {
      position: 'bottom' as const,
      labels: {
        usePointStyle: true,
        pointStyleWidth: 16,
        color: colours.value.ink,
        filter: (item: { text: string }) => item.text !== '',
      },
    },
    tooltip: {
      callbacks: {
        label: (item: {
          dataset: { label?: string }
          dataIndex: number
          parsed: { x: number | null; y: number | null }
        }) =>
          item.dataset.label === 'Felt or seen'
            ? props.cues[item.dataIndex]!.label
            : `${item.dataset.label || 'Likely'}: ${units.temp(item.parsed.y ?? 0)} at ${figure(item.parsed.x ?? 0, 0)} min`,
      },
    },
  },
}))
const chart = useTemplateRef<{ chart: Chart | null }>('chart')
const svg = () => svgOfChart(chart.value!.chart!, colours.value.ground)
function csv() {
  const read = series.value.measured.map(({ x, y }) => ({ minute: x, tempC: y }))
  return settingToCsv(setRows(props.curve, 1), read)
}
</script>

<template>
  <figure>
    <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
    <div
      class="chart"
      tabindex="0"
      role="group"
      aria-label="Chart; arrow keys move, plus and minus zoom"
      @keydown="key"
    >
      <Scatter
        ref="chart"
        :data="data"
        :options="options"
        :plugins="[uprights]"
        :aria-label="spoken"
        role="img"
      />
    </div>
    <figcaption class="tools">
      <button type="button" aria-label="Closer" @click="zoom(0.5)">+</button>
      <button type="button" aria-label="Further" :disabled="isWhole" @click="zoom(2)">−</button>
      <template v-if="!isWhole">
        <button type="button" aria-label="Earlier" @click="move(-0.25)">‹</button>
        <button type="button" aria-label="Later" @click="move(0.25)">›</button>
      </template>
      <ChartFiles what="setting curve" :name="fileName" :svg="svg" :csv="csv" />
      <slot />
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s1);
  --ring: var(--ring-on-light);
  background: var(--plaster);
  color: var(--ink);
  border-radius: 1rem;
  padding: var(--s2) var(--s3);
}
.chart {
  height: var(--chart-height, 14.5rem);
  position: relative;
  /* The picture follows a narrower window a moment later. */
  overflow: hidden;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.tools :deep(button) {
  min-width: 44px;
  min-height: 44px;
  padding: 0 var(--s2);
  border: 1px solid var(--line);
  border-radius: 0.6rem;
  background: transparent;
  color: var(--ink);
  font-weight: 700;
  cursor: pointer;
}
.tools :deep(button:disabled) {
  opacity: 0.45;
  cursor: default;
}
</style>
