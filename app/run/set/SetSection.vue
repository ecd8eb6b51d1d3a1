<script setup lang="ts">
/**
 * The piece cut through: how warm it is and how far it has set, from the same run as its curve, with its hottest and its
 * last place marked. The same in figures: SetTable. Usage: <SetSection :curve :now-s :hottest-at :plan />
 */
import { computed, onMounted, useTemplateRef, watch } from 'vue'
import type { SetCurve } from '#core/forecast'
import { heatPiecesOf, type PourPlan } from '#core/pour'
import { atDepth, cellAt, sectionOf } from '~/parts/set/section'
import { rowAt } from '~/parts/set/setSeries'
import { figure } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'

const props = defineProps<{ curve: SetCurve; nowS: number; hottestAt: number; plan: PourPlan }>()
const units = useUnits()

const row = computed(() => rowAt(props.curve, props.nowS))
const alpha = computed(() => props.curve.alphaByDepth[row.value] ?? [])
const tempC = computed(() => props.curve.tempByDepth[row.value] ?? [])
const isEven = computed(() => heatPiecesOf(props.plan).even)
const section = computed(() => sectionOf(props.plan))
const least = computed(() => Math.min(...alpha.value))
const range = computed(() => {
  const of = [least.value, Math.max(...alpha.value)].map((a) => Math.round(100 * a))
  return of[0] === of[1] ? figure(of[0]!, 0) : `${of[0]} to ${of[1]}`
})
/** From the coldest to the hottest of the whole run: a colour means the same all along. */
const scaleC = computed(() => {
  const all = props.curve.tempByDepth.flat()
  return [Math.min(...all), Math.max(...all)] as const
})

const heat = useTemplateRef<HTMLCanvasElement>('heat')
const set = useTemplateRef<HTMLCanvasElement>('set')

type Colour = readonly [number, number, number]
const COLD: Colour = [150, 202, 209]
const WARM: Colour = [241, 205, 152]
const HOT: Colour = [214, 64, 24]
const RAW: Colour = [96, 74, 52]
const HARD: Colour = [252, 250, 245]
const between = (a: Colour, b: Colour, share: number): Colour => [
  a[0] + share * (b[0] - a[0]),
  a[1] + share * (b[1] - a[1]),
  a[2] + share * (b[2] - a[2]),
]
function ofHeat(c: number): Colour {
  const [low, high] = scaleC.value
  const share = high > low ? (c - low) / (high - low) : 0
  return share < 0.5 ? between(COLD, WARM, 2 * share) : between(WARM, HOT, 2 * share - 1)
}

function paint(canvas: HTMLCanvasElement | null, colourAt: (depth: number) => Colour) {
  const context = canvas?.getContext('2d')
  if (!canvas || !context) return
  const { columns, rows, depth } = section.value
  canvas.width = columns
  canvas.height = rows
  const picture = context.createImageData(columns, rows)
  for (const [i, d] of depth.entries()) if (!Number.isNaN(d)) picture.data.set([...colourAt(d), 255], 4 * i)
  context.putImageData(picture, 0, 0)
}
function draw() {
  if (alpha.value.length === 0) return
  paint(heat.value, (depth) => ofHeat(atDepth(tempC.value, depth)))
  paint(set.value, (depth) => between(RAW, HARD, atDepth(alpha.value, depth)))
}
onMounted(draw)
watch([alpha, tempC, section], draw)

const lastAt = computed(() => (alpha.value.indexOf(least.value) + 0.5) / alpha.value.length)
const placeOf = (depth: number) => {
  const { column, row: at } = cellAt(section.value, depth)
  const { columns, rows } = section.value
  return { left: `${(100 * (column + 0.5)) / columns}%`, top: `${(100 * (at + 0.5)) / rows}%` }
}
</script>

<template>
  <figure v-if="alpha.length > 0" class="section">
    <div class="cut">
      <span class="picture"
        ><canvas ref="heat" aria-hidden="true" /><i
          aria-hidden="true"
          class="hottest"
          :style="placeOf(hottestAt)"
      /></span>
      <span class="says">
        <b>{{ units.temp(Math.max(...tempC)) }}</b> at its hottest place
        <i class="hottest key" aria-hidden="true" />
      </span>
    </div>
    <div class="cut">
      <span class="picture"
        ><canvas ref="set" aria-hidden="true" /><i aria-hidden="true" class="last" :style="placeOf(lastAt)"
      /></span>
      <span class="says">
        Set <b>{{ range }} %</b>{{ isEven ? '' : ', less where it is thicker' }}; last
        <i class="last key" aria-hidden="true" />
      </span>
    </div>
  </figure>
</template>

<style scoped>
.section {
  margin: 0;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--s3);
}
.cut {
  display: grid;
  gap: 2px;
  align-content: start;
  justify-items: start;
}
.picture {
  position: relative;
  display: inline-block;
  height: 3.6rem;
  max-width: 100%;
}
canvas {
  display: block;
  height: 100%;
  max-width: 100%;
}
.hottest,
.last {
  width: 12px;
  height: 12px;
  border: 2px solid var(--ink);
  background: var(--plaster);
}
.hottest {
  background: var(--hot);
  border-color: var(--plaster);
  border-radius: 50%;
}
.last {
  rotate: 45deg;
}
.picture i {
  position: absolute;
  translate: -50% -50%;
}
.key {
  display: inline-block;
  vertical-align: -1px;
}
.says {
  font-size: 0.95rem;
}
</style>
