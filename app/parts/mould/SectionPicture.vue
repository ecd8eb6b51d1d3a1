<script setup lang="ts">
/**
 * A mould cut through the middle, to scale: filled to the pour line, with its measurements or a scale bar.
 * Usage: <SectionPicture :drawing="sectionOf(method, ml)" material="silicone" label="…" dimensions />
 */
import { rounded } from '~/parts/show/figures'
import { useElementSize } from '@vueuse/core'
import { computed, useId, useTemplateRef } from 'vue'
import type { MouldMaterial } from '#core/mould'
import { useUnits } from '~/parts/show/useUnits'
import type { Dimension, SectionDrawing } from './ways/drawing'

const props = defineProps<{
  drawing: SectionDrawing
  material: MouldMaterial
  label: string
  /** Draw the measurements; else a scale bar stands below. */
  dimensions?: boolean
}>()
const units = useUnits()
const id = useId()

const extent = computed(() => {
  const points = props.drawing.patches.flatMap((p) => p.rings.flat())
  const xs = points.map(([x]) => x)
  const ys = points.map(([, y]) => y)
  return { left: Math.min(...xs), right: Math.max(...xs), low: Math.min(...ys), high: Math.max(...ys) }
})
const size = computed(() =>
  Math.max(extent.value.right - extent.value.left, (extent.value.high - extent.value.low) * 1.8),
)
const offset = computed(() => size.value * 0.05)

/** Words are read at no less than this, px on the screen; where they would fill the picture they are left out. */
const LEAST_FONT_PX = 16
const MOST_OF_PICTURE = 0.2
const picture = useTemplateRef<SVGSVGElement>('picture')
const { width: widePx, height: highPx } = useElementSize(picture)
/** In the drawing's own mm: it grows as the picture shrinks, and with it the margin that it needs. */
const fit = computed(() => {
  let font = size.value * 0.048
  if (widePx.value === 0 || highPx.value === 0) return { font, legible: true }
  // A larger margin makes the picture smaller, and that the font larger: until it holds, or is past all bounds.
  for (let i = 0; i < 80 && font <= size.value * MOST_OF_PICTURE; i++) {
    const [, , wide, high] = boxOf(font)
    const mmOfPx = Math.max(wide / widePx.value, high / highPx.value)
    font = Math.max(size.value * 0.048, LEAST_FONT_PX * mmOfPx)
  }
  return font > size.value * MOST_OF_PICTURE
    ? { font: size.value * 0.048, legible: false }
    : { font, legible: true }
})
const font = computed(() => fit.value.font)
const measured = computed(() => props.dimensions && fit.value.legible)

const paths = computed(() =>
  props.drawing.patches.map(({ stuff, rings }) => ({
    stuff,
    d: rings
      .map((ring) => `M${ring.map(([x, y]) => `${rounded(x, 2)} ${rounded(-y, 2)}`).join('L')}Z`)
      .join(''),
  })),
)

/** A dimension line beside what it measures, with ticks and its text, y down. */
function placed(d: Dimension) {
  const off = offset.value
  const [dx, dy] = { left: [-off, 0], right: [off, 0], below: [0, off], above: [0, -off] }[d.side] as [
    number,
    number,
  ]
  const [x1, y1, x2, y2] = [d.from[0] + dx, -d.from[1] + dy, d.to[0] + dx, -d.to[1] + dy]
  const upright = d.side === 'left' || d.side === 'right'
  const gap = font.value * 0.35
  return {
    line: { x1, y1, x2, y2 },
    text: units.length(d.lengthMm),
    x: upright ? x1 + (d.side === 'right' ? gap : -gap) : (x1 + x2) / 2,
    y: upright ? (y1 + y2) / 2 + font.value * 0.35 : y1 + (d.side === 'below' ? font.value : -gap),
    anchor: upright ? (d.side === 'right' ? 'start' : 'end') : 'middle',
    upright,
  }
}
const lines = computed(() => (measured.value ? props.drawing.dimensions.map(placed) : []))

function marginOf(font: number) {
  if (!props.dimensions) return { x: offset.value * 0.4, top: offset.value * 0.4, low: font * 2 }
  const sides = new Set(props.drawing.dimensions.map((d) => d.side))
  const upright = props.drawing.dimensions.filter((d) => d.side === 'left' || d.side === 'right')
  const longest = Math.max(4, ...upright.map((d) => units.length(d.lengthMm).length))
  return {
    x: upright.length > 0 ? offset.value + (longest + 1) * font * 0.66 : offset.value,
    top: sides.has('above') ? offset.value + font * 1.4 : offset.value,
    low: sides.has('below') ? offset.value + font * 1.6 : offset.value,
  }
}
/** Left, top, width and height of what is shown, for words of a size. */
function boxOf(font: number): [number, number, number, number] {
  const { left, right, low, high } = extent.value
  const { x, top, low: bottom } = marginOf(font)
  return [left - x, -high - top, right - left + 2 * x, high - low + top + bottom]
}
const viewBox = computed(() => boxOf(font.value).join(' '))

const STEPS = [5, 10, 20, 50, 100, 200, 500, 1000]
const bar = computed(() => STEPS.findLast((s) => s <= size.value * 0.4) ?? 5)
</script>

<template>
  <svg
    ref="picture"
    class="section"
    :class="`of-${material}`"
    :viewBox="viewBox"
    role="img"
    :aria-label="label"
    preserveAspectRatio="xMidYMid meet"
  >
    <defs>
      <pattern :id="`${id}-grains`" :width="size * 0.03" :height="size * 0.03" patternUnits="userSpaceOnUse">
        <rect width="100%" height="100%" class="grain-ground" />
        <circle :cx="size * 0.008" :cy="size * 0.009" :r="size * 0.006" class="grain" />
        <circle :cx="size * 0.022" :cy="size * 0.021" :r="size * 0.006" class="grain" />
      </pattern>
      <pattern :id="`${id}-ground`" :width="size * 0.04" :height="size * 0.04" patternUnits="userSpaceOnUse">
        <rect width="100%" height="100%" class="soil" />
        <circle :cx="size * 0.01" :cy="size * 0.012" :r="size * 0.003" class="pebble" />
        <circle :cx="size * 0.03" :cy="size * 0.03" :r="size * 0.004" class="pebble" />
      </pattern>
    </defs>
    <path
      v-for="(path, i) in paths"
      :key="i"
      :d="path.d"
      :class="path.stuff"
      fill-rule="evenodd"
      :style="
        path.stuff === 'grains' || path.stuff === 'ground' ? { fill: `url(#${id}-${path.stuff})` } : undefined
      "
    />
    <line
      v-if="drawing.pourLine"
      class="pour-line"
      :x1="drawing.pourLine.from[0]"
      :y1="-drawing.pourLine.from[1]"
      :x2="drawing.pourLine.to[0]"
      :y2="-drawing.pourLine.to[1]"
      :stroke-width="size * 0.008"
    />
    <g v-for="(l, i) in lines" :key="`d${i}`" class="dim">
      <line v-bind="l.line" :stroke-width="size * 0.004" />
      <template v-for="end in [1, 2]" :key="end">
        <line
          :x1="(end === 1 ? l.line.x1 : l.line.x2) - (l.upright ? font * 0.25 : 0)"
          :x2="(end === 1 ? l.line.x1 : l.line.x2) + (l.upright ? font * 0.25 : 0)"
          :y1="(end === 1 ? l.line.y1 : l.line.y2) - (l.upright ? 0 : font * 0.25)"
          :y2="(end === 1 ? l.line.y1 : l.line.y2) + (l.upright ? 0 : font * 0.25)"
          :stroke-width="size * 0.006"
        />
      </template>
      <text :x="l.x" :y="l.y" :text-anchor="l.anchor" :font-size="font">{{ l.text }}</text>
    </g>
    <g v-if="!dimensions && drawing.trueForm && fit.legible" class="dim">
      <line
        :x1="-bar / 2"
        :x2="bar / 2"
        :y1="-extent.low + font * 0.7"
        :y2="-extent.low + font * 0.7"
        :stroke-width="size * 0.012"
      />
      <text x="0" :y="-extent.low + font * 1.8" text-anchor="middle" :font-size="font">
        {{ units.length(bar) }}
      </text>
    </g>
    <text
      v-if="!dimensions && !drawing.trueForm && fit.legible"
      class="stand-in"
      :x="(extent.left + extent.right) / 2"
      :y="-extent.low + font * 1.6"
      text-anchor="middle"
      :font-size="font"
    >
      shape not known
    </text>
  </svg>
</template>

<style scoped>
.section {
  width: 100%;
  height: 100%;
  display: block;
  --material: #b7c3c4;
}
.of-silicone {
  --material: #a9bcc4;
}
.of-polyurethane {
  --material: #d8b26a;
}
.of-latex {
  --material: #dccb9c;
}
.of-rigid_plastic {
  --material: #c9d3d8;
}
.of-plaster {
  --material: #d9d2c2;
}
.of-wood {
  --material: #c09a68;
}
.of-metal {
  --material: #9aa1a5;
}
.of-wet_clay {
  --material: #9c6f55;
}
.of-alginate {
  --material: #c3ced2;
}
.of-impression_compound {
  --material: #8f6f7a;
}
.of-sand_soil {
  --material: #8b8f90;
}
.of-card {
  --material: #c9b594;
}
.mould {
  fill: var(--material);
}
.plaster {
  fill: #fffdf8;
  stroke: var(--ink-soft);
  stroke-width: 0.6px;
  vector-effect: non-scaling-stroke;
}
.water {
  fill: var(--wet-light);
}
.gel {
  fill: #e6b9c0;
}
.object {
  fill: #a58468;
}
.set {
  fill: #d9d0bb;
}
.board {
  fill: #c09a68;
}
.dam {
  fill: #6c7479;
}
.soil {
  fill: #c6ae86;
}
.pebble {
  fill: #a58d66;
}
.grain-ground {
  fill: #efe3c8;
}
.grain {
  fill: #bfa878;
}
.pour-line {
  stroke: var(--wet);
}
.dim line {
  stroke: var(--ink);
}
.dim text,
.stand-in {
  fill: var(--ink);
  font-weight: 600;
  /* Keeps a figure readable where it crosses an edge. */
  paint-order: stroke;
  stroke: #fcfaf5d0;
  stroke-width: 4px;
  vector-effect: non-scaling-stroke;
}
.stand-in {
  fill: var(--ink-soft);
  font-weight: 400;
}
</style>
