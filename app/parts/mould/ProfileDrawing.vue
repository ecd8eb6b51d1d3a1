<script setup lang="ts">
/**
 * The paper of the drawing board: the lines to scale, each point a grip for mouse, touch or keys.
 * Usage: <ProfileDrawing v-model:selected="i" :method :which :crossing @put="…" @add="…" @remove="…" />
 */
import { MM_PER } from '#core/units'
import { rounded } from '~/parts/show/figures'
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { svgPathOf } from '#core/formats'
import { findUndercuts, flattenProfile, type ProfileNode } from '#core/mould'
import { useUnits } from '~/parts/show/useUnits'
import { filledPath, gridLines, type ProfileMethod } from './profileBoard'
import { gridStepMm, moveNode, toggleSmooth } from './profileEdit'

const props = defineProps<{
  method: ProfileMethod
  which: 'outer' | 'inner'
  /** Height of what is filled in, mm. */
  level: number
  /** Where the core found the line at fault, [radius, height] mm. */
  faultAt?: [number, number]
}>()
const selected = defineModel<number>('selected', { required: true })
const emit = defineEmits<{ put: [nodes: ProfileNode[]]; add: []; remove: [] }>()
const units = useUnits()
const board = useTemplateRef<SVGSVGElement>('board')
const { width: widePx, height: highPx } = useElementSize(board)

const nodes = computed(() => props.method[props.which])
const extent = computed(() => {
  const all = [...props.method.outer, ...props.method.inner]
  const high = Math.max(40, ...all.map((n) => n.heightMm))
  const low = Math.min(0, ...all.map((n) => n.heightMm))
  const wide = Math.max(40, ...all.map((n) => n.radiusMm))
  return { wide: wide * 1.12, high: high + (high - low) * 0.1, low: low - (high - low) * 0.05 }
})
/** Held while dragging, so that the paper does not slide under the hand. */
const held = ref<typeof extent.value>()
const paper = computed(() => held.value ?? extent.value)
const stepMm = computed(() => {
  const size = Math.max(paper.value.high - paper.value.low, paper.value.wide)
  return units.system() === 'metric' ? gridStepMm(size) : gridStepMm(size / MM_PER.in) * MM_PER.in
})
const lines = (from: number, to: number) => gridLines(from, to, stepMm.value)
const unit = computed(() => Math.max(paper.value.wide * 1.3, paper.value.high - paper.value.low) / 100)
const box = computed(() => {
  const { wide, high, low } = paper.value
  return { left: -wide * 0.13, top: -high, wide: wide * 1.13, high: high - low + unit.value * 5 }
})
/** Numbers are read at no less than this, px on the screen. */
const LEAST_FONT_PX = 17
const font = computed(() => {
  const mmOfPx = widePx.value > 0 ? Math.max(box.value.wide / widePx.value, box.value.high / highPx.value) : 0
  return Math.max(unit.value * 3.4, LEAST_FONT_PX * mmOfPx)
})
const outerLine = computed(() => flattenProfile(props.method.outer))
const undercuts = computed(() => (props.method.outer.length > 1 ? findUndercuts(outerLine.value) : []))
const filled = computed(() => filledPath(outerLine.value, props.level))

function toMm(event: PointerEvent): [number, number] {
  const svg = board.value!
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM()!.inverse())
  return [point.x, -point.y]
}

/** Numbers along the grid, bare, in the caster's own length unit. */
const inUnit = (mm: number) => (units.system() === 'metric' ? mm : rounded(mm / MM_PER.in, 2))

/** To what a hand, an arrow key and a typed figure are rounded, mm. */
const DRAG_STEP_MM = 1
const KEY_STEP_MM = 0.5

let frame = 0
function drag(i: number, event: PointerEvent) {
  selected.value = i
  const target = event.currentTarget as SVGElement
  target.setPointerCapture(event.pointerId)
  held.value = extent.value
  const move = (e: PointerEvent) => {
    const [r, z] = toMm(e)
    cancelAnimationFrame(frame)
    // One change a frame, however often the pointer reports.
    frame = requestAnimationFrame(() => emit('put', moveNode(nodes.value, i, r, z, DRAG_STEP_MM)))
  }
  const up = () => {
    target.removeEventListener('pointermove', move)
    held.value = undefined
  }
  target.addEventListener('pointermove', move)
  target.addEventListener('pointerup', up, { once: true })
  target.addEventListener('pointercancel', up, { once: true })
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}
function onKey(i: number, event: KeyboardEvent) {
  const arrow = ARROWS[event.key]
  const at = nodes.value[i]!
  if (arrow) {
    const by = event.shiftKey ? 10 : 1
    const [r, z] = [at.radiusMm + arrow[0] * by, at.heightMm + arrow[1] * by]
    emit('put', moveNode(nodes.value, i, r, z, KEY_STEP_MM))
  } else if (event.key === 'Insert' || event.key === '+') emit('add')
  else if (event.key === 'Delete') emit('remove')
  else if (event.key === 'c') emit('put', toggleSmooth(nodes.value, i))
  else return
  event.preventDefault()
}
</script>

<template>
  <svg
    ref="board"
    class="paper"
    :viewBox="`${box.left} ${box.top} ${box.wide} ${box.high}`"
    role="group"
    aria-label="Profile, drawn from the axis outwards"
  >
    <g class="grid" :stroke-width="unit * 0.15">
      <line
        v-for="x in lines(0, paper.wide)"
        :key="`x${x}`"
        :x1="x"
        :x2="x"
        :y1="-paper.high"
        :y2="-paper.low"
      />
      <line
        v-for="z in lines(paper.low, paper.high)"
        :key="`z${z}`"
        :x1="0"
        :x2="paper.wide"
        :y1="-z"
        :y2="-z"
      />
    </g>
    <g class="numbers" :font-size="font">
      <text
        v-for="x in lines(stepMm, paper.wide)"
        :key="`tx${x}`"
        :x="x"
        :y="-paper.low + unit * 3.6"
        text-anchor="middle"
      >
        {{ inUnit(x) }}
      </text>
      <text
        v-for="z in lines(paper.low, paper.high)"
        :key="`tz${z}`"
        :x="-unit * 2.8"
        :y="-z + unit * 1.2"
        text-anchor="end"
      >
        {{ inUnit(z) }}
      </text>
    </g>
    <path class="filled" :d="filled" />
    <rect
      v-for="(u, i) in undercuts"
      :key="`u${i}`"
      class="undercut"
      x="0"
      :width="paper.wide"
      :y="-u.toMm"
      :height="u.toMm - u.fromMm"
    />
    <line class="axis" x1="0" x2="0" :y1="-paper.high" :y2="-paper.low" :stroke-width="unit * 0.5" />
    <line class="level" x1="0" :x2="paper.wide" :y1="-level" :y2="-level" :stroke-width="unit * 0.5" />
    <path
      class="line"
      :class="{ faint: which === 'inner' }"
      :d="svgPathOf(method.outer)"
      :stroke-width="unit * 0.9"
    />
    <path
      v-if="method.inner.length > 1"
      class="line core"
      :class="{ faint: which === 'outer' }"
      :d="svgPathOf(method.inner)"
      :stroke-width="unit * 0.9"
    />
    <circle
      v-if="faultAt"
      class="fault"
      :cx="faultAt[0]"
      :cy="-faultAt[1]"
      :r="unit * 4"
      :stroke-width="unit"
    />
    <g
      v-for="(n, i) in nodes"
      :key="i"
      class="node"
      :class="{ chosen: i === selected }"
      tabindex="0"
      role="button"
      :aria-label="`Point ${i + 1} of ${nodes.length}: ${units.length(n.radiusMm)} from the axis, ${units.length(n.heightMm)} up, ${n.smooth ? 'curve' : 'corner'}`"
      @pointerdown.prevent="drag(i, $event)"
      @focus="selected = i"
      @keydown="onKey(i, $event)"
    >
      <circle class="reach" :cx="n.radiusMm" :cy="-n.heightMm" :r="unit * (nodes.length > 60 ? 1.6 : 4.5)" />
      <circle
        v-if="n.smooth"
        class="dot"
        :cx="n.radiusMm"
        :cy="-n.heightMm"
        :r="unit * (nodes.length > 60 ? 0.9 : 1.8)"
        :stroke-width="unit * 0.6"
      />
      <rect
        v-else
        class="dot"
        :x="n.radiusMm - unit * (nodes.length > 60 ? 0.8 : 1.6)"
        :y="-n.heightMm - unit * (nodes.length > 60 ? 0.8 : 1.6)"
        :width="unit * (nodes.length > 60 ? 1.6 : 3.2)"
        :height="unit * (nodes.length > 60 ? 1.6 : 3.2)"
        :stroke-width="unit * 0.6"
      />
    </g>
  </svg>
  <p class="soft small">
    Grid {{ units.length(stepMm) }}. Drag a point, or Tab to it: arrows move it {{ units.length(1) }}, with
    Shift ten times that; + adds, Delete removes, c makes it a curve.
  </p>
</template>

<style scoped>
.paper {
  width: 100%;
  max-height: 26rem;
  background: var(--plaster);
  border: 2px solid var(--line);
  border-radius: 0.6rem;
  touch-action: none;
}
.grid line {
  stroke: var(--line);
}
.numbers text {
  fill: var(--ink-soft);
}
.axis {
  stroke: var(--ink-soft);
  stroke-dasharray: 6 3;
}
.level {
  stroke: var(--wet);
}
.filled {
  fill: var(--wet-light);
  opacity: 0.45;
}
.undercut {
  fill: var(--warm-light);
  opacity: 0.55;
}
.line {
  fill: none;
  stroke: var(--ink);
}
.line.core {
  stroke: var(--warm);
}
.line.faint {
  opacity: 0.4;
}
.node {
  cursor: grab;
  outline: none;
}
.reach {
  fill: transparent;
}
.dot {
  fill: var(--plaster);
  stroke: var(--ink);
}
.node.chosen .dot {
  fill: var(--ink);
}
.node:focus-visible {
  outline: 3px solid var(--ring);
}
.node:focus-visible .reach {
  fill: #e0a23c88;
}
.fault {
  fill: none;
  stroke: var(--hot);
}
.small {
  font-size: 0.88rem;
}
</style>
