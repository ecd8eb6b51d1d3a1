<script setup lang="ts">
/**
 * A photograph to be marked: it is drawn nearer by a wheel, two fingers or buttons, a tap sets a point, a point is drawn
 * along under a glass or moved by the arrow keys.
 * Usage: <PhotoBoard :src :width-px :height-px :shapes active="outline" @add @move />
 */
import { ZoomIn, ZoomOut } from '@lucide/vue'
import { computed, ref, useTemplateRef } from 'vue'
import type { Pixel } from '#core/field'
import { nearestTo, pathOf, spread, viewFor, zoomed, type BoardShape, type View } from './board'

const props = defineProps<{
  src: string
  widthPx: number
  heightPx: number
  shapes: readonly BoardShape[]
  /** Whose points can be set and moved. */
  active: string
  label: string
}>()
const emit = defineEmits<{
  add: [at: Pixel]
  move: [index: number, to: Pixel]
}>()

const svg = useTemplateRef<SVGSVGElement>('svg')
const view = ref<View>(viewFor(props.widthPx, props.heightPx))
const nearness = computed(() => props.widthPx / view.value.width)
/** Of the photograph that a pixel of the screen stands for. */
const pxPerScreen = () => view.value.width / Math.max(1, svg.value?.clientWidth ?? 1)

const bounds = computed(() => ({ widthPx: props.widthPx, heightPx: props.heightPx }))
function zoom(by: number, at?: Pixel) {
  view.value = zoomed(view.value, by, at, bounds.value)
}
function placeOf(event: { clientX: number; clientY: number }): Pixel {
  const box = svg.value!.getBoundingClientRect()
  return {
    x: view.value.x + ((event.clientX - box.left) / box.width) * view.value.width,
    y: view.value.y + ((event.clientY - box.top) / box.height) * view.value.height,
  }
}

/** Fingers that are down, where they are now and where they came down. */
const fingers = new Map<number, { now: PointerEvent; from: PointerEvent }>()
const held = ref<{ index: number; at: Pixel }>()
let wasTwo = false

function down(event: PointerEvent, onPoint = false) {
  svg.value!.setPointerCapture(event.pointerId)
  fingers.set(event.pointerId, { now: event, from: event })
  if (fingers.size > 1) {
    wasTwo = true
    held.value = undefined
    return
  }
  const points = props.shapes.find((s) => s.id === props.active)?.points ?? []
  const index = onPoint ? nearestTo(placeOf(event), points) : undefined
  if (index !== undefined) held.value = { index, at: placeOf(event) }
}
function moved(event: PointerEvent) {
  const finger = fingers.get(event.pointerId)
  if (!finger) return
  const before = finger.now
  if (fingers.size > 1) {
    const others = [...fingers.values()].map((f) => f.now)
    const was = spread(others)
    finger.now = event
    const is = spread([...fingers.values()].map((f) => f.now))
    zoom(was.apart > 0 ? is.apart / was.apart : 1, placeOf({ clientX: is.x, clientY: is.y }))
    pan(is.x - was.x, is.y - was.y)
    return
  }
  finger.now = event
  if (held.value) {
    const at = placeOf(event)
    held.value = { ...held.value, at }
    emit('move', held.value.index, at)
  } else if (isDrag(finger)) pan(event.clientX - before.clientX, event.clientY - before.clientY)
}
function pan(dx: number, dy: number) {
  const by = pxPerScreen()
  const { x, y, width, height } = view.value
  view.value = zoomed({ x: x - dx * by, y: y - dy * by, width, height }, 1, undefined, bounds.value)
}
/** Farther than a wet finger slips. */
const isDrag = ({ now, from }: { now: PointerEvent; from: PointerEvent }) =>
  Math.hypot(now.clientX - from.clientX, now.clientY - from.clientY) > 8
function up(event: PointerEvent) {
  const finger = fingers.get(event.pointerId)
  fingers.delete(event.pointerId)
  if (!finger) return
  finger.now = event
  if (!held.value && !wasTwo && !isDrag(finger) && event.type === 'pointerup') emit('add', placeOf(event))
  held.value = undefined
  if (fingers.size === 0) wasTwo = false
}
function wheel(event: WheelEvent) {
  zoom(event.deltaY < 0 ? 1.2 : 1 / 1.2, placeOf(event))
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
function keyOnPoint(event: KeyboardEvent, index: number, at: Pixel) {
  const way = ARROWS[event.key]
  if (!way) return
  event.preventDefault()
  const by = event.shiftKey ? 10 : 1
  emit('move', index, { x: at.x + way[0] * by, y: at.y + way[1] * by })
}
const middle = (): Pixel => ({
  x: view.value.x + view.value.width / 2,
  y: view.value.y + view.value.height / 2,
})
function keyOnBoard(event: KeyboardEvent) {
  if (event.target !== svg.value) return
  const way = ARROWS[event.key]
  if (way) pan(-way[0] * 40, -way[1] * 40)
  else if (event.key === '+') zoom(1.5)
  else if (event.key === '-') zoom(1 / 1.5)
  else if (event.key === 'Enter' || event.key === ' ') emit('add', middle())
  else return
  event.preventDefault()
}

/** As large on the screen however near it is drawn. */
const dot = computed(() => (props.widthPx / 100 / nearness.value) * 1.4)
const GLASS = 6
const glass = computed(() => {
  const at = held.value?.at
  if (!at) return undefined
  const side = view.value.width / GLASS
  return { box: `${at.x - side / 2} ${at.y - side / 2} ${side} ${side}`, at, side }
})
</script>

<template>
  <div class="board">
    <svg
      ref="svg"
      :viewBox="`${view.x} ${view.y} ${view.width} ${view.height}`"
      :style="{ aspectRatio: `${widthPx} / ${heightPx}` }"
      tabindex="0"
      role="group"
      :aria-label="`${label}. Enter sets a point in the middle, arrows move the picture, plus and minus draw it nearer.`"
      @pointerdown="down($event)"
      @pointermove="moved"
      @pointerup="up"
      @pointercancel="up"
      @wheel.prevent="wheel"
      @keydown="keyOnBoard"
    >
      <image :href="src" x="0" y="0" :width="widthPx" :height="heightPx" preserveAspectRatio="none" />
      <g
        v-for="shape in shapes"
        :key="shape.id"
        :class="['shape', shape.tone, { idle: shape.id !== active }]"
      >
        <path :d="pathOf(shape)" class="under" />
        <path :d="pathOf(shape)" class="line" />
        <template v-if="shape.id === active">
          <g
            v-for="(p, i) in shape.points"
            :key="i"
            class="point"
            tabindex="0"
            role="button"
            :aria-label="`${shape.name}, point ${i + 1}: ${Math.round(p.x)}, ${Math.round(p.y)}`"
            @pointerdown.stop="down($event, true)"
            @keydown="keyOnPoint($event, i, p)"
          >
            <circle :cx="p.x" :cy="p.y" :r="dot * 3" class="reach" />
            <circle :cx="p.x" :cy="p.y" :r="dot" class="ring" />
            <circle :cx="p.x" :cy="p.y" :r="dot / 5" class="centre" />
          </g>
        </template>
      </g>
    </svg>
    <svg v-if="glass" class="glass" :viewBox="glass.box" aria-hidden="true">
      <image :href="src" x="0" y="0" :width="widthPx" :height="heightPx" preserveAspectRatio="none" />
      <path
        :d="`M${glass.at.x - glass.side} ${glass.at.y}h${2 * glass.side}M${glass.at.x} ${glass.at.y - glass.side}v${2 * glass.side}`"
        class="cross"
      />
    </svg>
    <div class="nearer">
      <button type="button" class="icon-button" aria-label="Draw it farther" @click="zoom(1 / 1.6)">
        <ZoomOut :size="22" />
      </button>
      <button type="button" class="icon-button" aria-label="Draw it nearer" @click="zoom(1.6)">
        <ZoomIn :size="22" />
      </button>
    </div>
  </div>
</template>

<style scoped>
.board {
  position: relative;
  border-radius: 0.6rem;
  overflow: hidden;
  background: #10181b;
}
.board > svg:first-child {
  display: block;
  width: 100%;
  max-height: 68vh;
  touch-action: none;
  cursor: crosshair;
}
path {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.under {
  stroke: rgb(0 0 0 / 0.75);
  stroke-width: 5;
}
.line {
  stroke-width: 2.5;
}
.scale .line,
.scale .ring,
.scale .centre {
  stroke: #ffd76b;
}
.mark .line,
.mark .ring,
.mark .centre {
  stroke: #8fe3ff;
}
.outline .line,
.outline .ring,
.outline .centre {
  stroke: #ffffff;
}
.idle {
  opacity: 0.75;
}
circle {
  vector-effect: non-scaling-stroke;
  fill: none;
}
.reach {
  fill: transparent;
  stroke: none;
}
.ring {
  stroke-width: 2.5;
  fill: rgb(0 0 0 / 0.25);
}
.centre {
  stroke-width: 2;
}
.point {
  cursor: grab;
}
.point:focus-visible .ring {
  stroke-width: 5;
}
.glass {
  position: absolute;
  top: var(--s2);
  left: var(--s2);
  width: 7.5rem;
  height: 7.5rem;
  border-radius: 50%;
  border: 3px solid #ffffff;
  background: #10181b;
  pointer-events: none;
}
.cross {
  stroke: #ffffff;
  stroke-width: 1.5;
  mix-blend-mode: difference;
}
.nearer {
  position: absolute;
  right: var(--s2);
  bottom: var(--s2);
  display: flex;
  gap: var(--s2);
}
.nearer .icon-button {
  background: rgb(252 250 245 / 0.92);
  color: #13262c;
}
</style>
