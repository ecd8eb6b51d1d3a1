<script setup lang="ts">
/**
 * Temperature of a setting piece: expected with its band, measured, what was felt and when, now, and when it comes out.
 * Arrow keys move along it, plus and minus zoom. Usage: <SetChart :curve :traces :start-ms :now-ms :marks :cues :spoken :file-name />
 */
import type { Plugin } from 'chart.js'
import { computed, ref, useTemplateRef } from 'vue'
import { Scatter } from 'vue-chartjs'
import type { SetCurve } from '#core/forecast'
import { settingToCsv } from '#core/formats'
import type { ProbeTrace } from '#core/pour'
import { Chart, svgOfChart } from '~/parts/chart/chart'
import { lookColours } from '~/parts/chart/colours'
import { figure, plain } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import { setRows, setSeries } from './setSeries'

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

/** Part of the whole that is shown, minutes; undefined is all of it. */
const view = ref<{ from: number; to: number }>()
const whole = computed(() => ({ from: 0, to: Math.ceil(props.curve.timeS.at(-1)! / 60) }))
const shown = computed(() => view.value ?? whole.value)
const LEAST_MIN = 10
function zoom(by: number) {
  const { from, to } = shown.value
  const nowMin = nowMinute.value ?? 0
  const middle = nowMin > from && nowMin < to ? nowMin : (from + to) / 2
  const half = Math.max(LEAST_MIN / 2, ((to - from) / 2) * by)
  setView(middle - half, middle + half)
}
function move(by: number) {
  const { from, to } = shown.value
  setView(from + by * (to - from), to + by * (to - from))
}
function setView(from: number, to: number) {
  const span = to - from
  const all = whole.value
  if (span >= all.to - all.from) {
    view.value = undefined
    return
  }
  const start = Math.min(Math.max(from, all.from), all.to - span)
  view.value = { from: start, to: start + span }
}
function key(event: KeyboardEvent) {
  const act = {
    '+': () => zoom(0.5),
    '-': () => zoom(2),
    ArrowLeft: () => move(-0.25),
    ArrowRight: () => move(0.25),
  }[event.key]
  if (!act) return
  // Any other key of the run goes on: these belong to the chart while it has the focus.
  event.preventDefault()
  event.stopPropagation()
  act()
}

/** The present, when it comes out, windows: upright lines with their words on top. */
const uprights: Plugin<'scatter'> = {
  id: 'uprights',
  afterDatasetsDraw(chart) {
    const { ctx, chartArea: area, scales } = chart
    const draw = (atMin: number, label: string, colour: string, dash: number[], row: number) => {
      const x = scales.x!.getPixelForValue(atMin)
      if (x < area.left || x > area.right) return
      ctx.save()
      ctx.strokeStyle = colour
      ctx.fillStyle = colour
      ctx.lineWidth = 2
      ctx.setLineDash(dash)
      ctx.beginPath()
      ctx.moveTo(x, area.top)
      ctx.lineTo(x, area.bottom)
      ctx.stroke()
      ctx.font = `600 14px ${Chart.defaults.font.family}`
      const isLeft = x > area.right - 130
      ctx.textAlign = isLeft ? 'right' : 'left'
      const wide = ctx.measureText(label).width
      ctx.globalAlpha = 0.8
      ctx.fillStyle = colours.value.ground
      ctx.fillRect(isLeft ? x - wide - 7 : x + 3, area.top + 1 + 16 * row, wide + 4, 15)
      ctx.globalAlpha = 1
      ctx.fillStyle = colour
      ctx.fillText(label, x + (isLeft ? -5 : 5), area.top + 13 + 16 * row)
      ctx.restore()
    }
    if (nowMinute.value !== undefined) draw(nowMinute.value, 'now', colours.value.ink, [], 0)
    props.marks.forEach((m, i) =>
      draw(m.atMin, m.label, m.warm ? colours.value.warm : colours.value.soft, [6, 5], 1 + i),
    )
  },
}

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
      <button type="button" aria-label="Further" :disabled="!view" @click="zoom(2)">−</button>
      <button type="button" aria-label="Earlier" :disabled="!view" @click="move(-0.25)">‹</button>
      <button type="button" aria-label="Later" :disabled="!view" @click="move(0.25)">›</button>
      <ChartFiles what="setting curve" :name="fileName" :svg="svg" :csv="csv" />
      <slot />
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  gap: var(--s1);
  background: var(--plaster);
  color: var(--ink);
  border-radius: 1rem;
  padding: var(--s2) var(--s3);
}
.chart {
  height: 15rem;
  position: relative;
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
  min-height: 40px;
  padding: 0 var(--s2);
  font-size: 0.92rem;
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
