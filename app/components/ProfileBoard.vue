<script setup lang="ts">
/**
 * A drawing board for the half profile of a round form: points and curves on a grid, to scale, by mouse, touch or keys.
 * Usage: <ProfileBoard v-model="method" :crossing="[30, 50]" @problem="…" />
 */
import { Download, Plus, Spline, Trash2, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, ref, useTemplateRef } from 'vue'
import { profileToCsv, profileToSvg, svgPathOf } from '#core/formats'
import {
  depthVolumeCurve,
  findUndercuts,
  flattenProfile,
  revolvedVolumeMl,
  wallThickness,
  type ProfileNode,
  type VolumeMethod,
} from '#core/mould'
import { useUnits } from '~/composables/useUnits'
import { saveFile } from '~/utils/saveFile'
import { depthCurvePath, filledPath, gridLines, readProfileFile } from '~/utils/profileBoard'
import { gridStepMm, innerFrom, insertAfter, moveNode, removeNode, toggleSmooth } from '~/utils/profileEdit'

type ProfileMethod = Extract<VolumeMethod, { by: 'profile' }>
const method = defineModel<ProfileMethod>({ required: true })
/** Where the core found the line at fault, [radius, height] mm. */
defineProps<{ faultAt?: [number, number] }>()
const emit = defineEmits<{ problem: [field: string, message: string] }>()
const units = useUnits()

const WHICH = [
  { value: 'outer', label: 'Mould’s wall' },
  { value: 'inner', label: 'Core inside it' },
] as const
const which = ref<'outer' | 'inner'>('outer')
const selected = ref(0)
const said = ref('')
const fileProblem = ref('')
const board = useTemplateRef('board')
const fileInput = useTemplateRef('fileInput')

const nodes = computed(() => method.value[which.value])
const node = computed(() => nodes.value[selected.value])
function put(next: ProfileNode[]) {
  method.value = { ...method.value, [which.value]: next }
}

const extent = computed(() => {
  const all = [...method.value.outer, ...method.value.inner]
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
  return units.system() === 'metric' ? gridStepMm(size) : gridStepMm(size / 25.4) * 25.4
})
const lines = (from: number, to: number) => gridLines(from, to, stepMm.value)
const unit = computed(() => Math.max(paper.value.wide * 1.3, paper.value.high - paper.value.low) / 100)

const outerLine = computed(() => flattenProfile(method.value.outer))
const floorMm = computed(() => Math.min(...outerLine.value.map((p) => p[1])))
const rimMm = computed(() => outerLine.value.at(-1)?.[1] ?? 0)
const undercuts = computed(() => (method.value.outer.length > 1 ? findUndercuts(outerLine.value) : []))
const wall = computed(() =>
  method.value.inner.length > 1
    ? wallThickness(outerLine.value, flattenProfile(method.value.inner))
    : undefined,
)
const level = computed(() => floorMm.value + (method.value.fillHeightMm ?? rimMm.value - floorMm.value))
const curve = computed(() => depthVolumeCurve(outerLine.value, 24))
const curvePath = computed(() => depthCurvePath(curve.value))
const filled = computed(() => filledPath(outerLine.value, level.value))

function toMm(event: PointerEvent): [number, number] {
  const svg = board.value!
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM()!.inverse())
  return [point.x, -point.y]
}

/** Numbers along the grid, bare, in the caster's own length unit. */
const inUnit = (mm: number) => (units.system() === 'metric' ? mm : Number((mm / 25.4).toFixed(2)))

let frame = 0
function drag(i: number, event: PointerEvent) {
  selected.value = i
  const target = event.currentTarget as SVGElement
  target.setPointerCapture(event.pointerId)
  held.value = extent.value
  const fine = 1
  const move = (e: PointerEvent) => {
    const [r, z] = toMm(e)
    cancelAnimationFrame(frame)
    // One change a frame, however often the pointer reports.
    frame = requestAnimationFrame(() => put(moveNode(nodes.value, i, r, z, fine)))
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
    put(moveNode(nodes.value, i, at.radiusMm + arrow[0] * by, at.heightMm + arrow[1] * by, 0.5))
  } else if (event.key === 'Insert' || event.key === '+') add()
  else if (event.key === 'Delete') remove()
  else if (event.key === 'c') put(toggleSmooth(nodes.value, i))
  else return
  event.preventDefault()
}
// The model follows the parent a moment later, so the selection is counted from the list that was sent.
function add() {
  const next = insertAfter(nodes.value, selected.value)
  put(next)
  selected.value = Math.min(selected.value + 1, next.length - 1)
}
function remove() {
  const next = removeNode(nodes.value, selected.value)
  put(next)
  selected.value = Math.min(selected.value, next.length - 1)
}
function choose(next: 'outer' | 'inner') {
  if (next === 'inner' && method.value.inner.length === 0)
    method.value = { ...method.value, inner: innerFrom(method.value.outer, 12) }
  which.value = next
  selected.value = 0
}
function dropCore() {
  method.value = { ...method.value, inner: [] }
  which.value = 'outer'
  selected.value = 0
}

const MAX_FILE_BYTES = 5_000_000
async function readFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  said.value = fileProblem.value = ''
  if (!file) return
  if (file.size > MAX_FILE_BYTES) {
    fileProblem.value = 'This file is too large for a profile. The drawing stands as it was.'
    return
  }
  const text = await file.text()
  const read = readProfileFile(file.name, text)
  if ('problem' in read) {
    fileProblem.value = read.problem
    return
  }
  put(read.nodes)
  selected.value = 0
  said.value = read.said
}
</script>

<template>
  <div class="board">
    <div class="tools">
      <ChoicePills
        :model-value="which"
        label="Which line"
        :options="WHICH"
        @update:model-value="choose($event)"
      />
      <Button v-if="method.inner.length > 0" label="No core" severity="secondary" @click="dropCore" />
    </div>
    <svg
      ref="board"
      class="paper"
      :viewBox="`${-paper.wide * 0.13} ${-paper.high} ${paper.wide * 1.13} ${paper.high - paper.low + unit * 5}`"
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
      <g class="numbers" :font-size="unit * 3.4">
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
          :x="-unit * 1.2"
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
        <circle
          class="reach"
          :cx="n.radiusMm"
          :cy="-n.heightMm"
          :r="unit * (nodes.length > 60 ? 1.6 : 4.5)"
        />
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
    <div v-if="node" class="typed">
      <QuantityField
        :key="`${which}${selected}r`"
        :model-value="node.radiusMm"
        kind="length"
        label="From the axis"
        :min="0"
        :max="5000"
        @update:model-value="put(moveNode(nodes, selected, $event ?? 0, node.heightMm, 0.1))"
        @problem="emit('problem', 'profile.radius', $event)"
      />
      <QuantityField
        :key="`${which}${selected}h`"
        :model-value="node.heightMm"
        kind="length"
        label="Height"
        :min="0"
        :max="5000"
        @update:model-value="put(moveNode(nodes, selected, node.radiusMm, $event ?? 0, 0.1))"
        @problem="emit('problem', 'profile.height', $event)"
      />
      <div class="buttons">
        <Button severity="secondary" aria-label="Add a point" @click="add"><Plus :size="20" /></Button>
        <Button
          severity="secondary"
          :aria-label="node.smooth ? 'Make it a corner' : 'Make it a curve'"
          :aria-pressed="node.smooth"
          @click="put(toggleSmooth(nodes, selected))"
          ><Spline :size="20"
        /></Button>
        <Button
          severity="secondary"
          aria-label="Remove the point"
          :disabled="nodes.length <= 2"
          @click="remove"
          ><Trash2 :size="20"
        /></Button>
      </div>
    </div>
    <p v-if="wall" data-testid="wall">
      Wall {{ units.length(wall.thinnestMm) }} to {{ units.length(wall.thickestMm) }},
      {{ units.length(wall.meanMm) }} on average.
    </p>
    <p v-for="u in undercuts" :key="u.fromMm" class="undercut-note">
      Undercut of {{ units.length(u.depthMm) }} between {{ units.length(u.fromMm) }} and
      {{ units.length(u.toMm) }}: it narrows towards the opening.
    </p>
    <div class="depth">
      <QuantityField
        :model-value="level - floorMm"
        kind="length"
        label="Fill it to"
        :min="1"
        :max="Math.max(1, rimMm - floorMm)"
        @update:model-value="
          method = { ...method, fillHeightMm: ($event ?? 0) >= rimMm - floorMm ? null : ($event ?? null) }
        "
        @problem="emit('problem', 'profile.fill', $event)"
      />
      <figure>
        <svg
          viewBox="-2 -4 104 68"
          role="img"
          aria-label="Volume against depth of fill"
          preserveAspectRatio="none"
        >
          <path class="curve" :d="curvePath" vector-effect="non-scaling-stroke" />
          <line
            class="curve-level"
            :x1="((level - floorMm) / Math.max(1e-9, rimMm - floorMm)) * 100"
            :x2="((level - floorMm) / Math.max(1e-9, rimMm - floorMm)) * 100"
            y1="0"
            y2="60"
            vector-effect="non-scaling-stroke"
          />
        </svg>
        <figcaption class="soft small">
          depth → volume: {{ units.volume(revolvedVolumeMl(outerLine, level)) }} of
          {{ units.volume(curve.at(-1)?.volumeMl ?? 0) }}
        </figcaption>
      </figure>
    </div>
    <div class="files">
      <input
        ref="fileInput"
        type="file"
        accept=".svg,.csv,.txt"
        class="visually-hidden"
        tabindex="-1"
        aria-label="Profile file"
        @change="readFile"
      />
      <Button severity="secondary" @click="fileInput?.click()"
        ><Upload :size="18" aria-hidden="true" />SVG or CSV</Button
      >
      <Button severity="secondary" @click="saveFile('profile.svg', 'image/svg+xml', profileToSvg(nodes))"
        ><Download :size="18" aria-hidden="true" />SVG</Button
      >
      <Button severity="secondary" @click="saveFile('profile.csv', 'text/csv', profileToCsv(nodes))"
        ><Download :size="18" aria-hidden="true" />CSV</Button
      >
      <p role="status" class="soft">{{ said }}</p>
    </div>
    <p v-if="fileProblem" class="problem" role="alert">{{ fileProblem }}</p>
  </div>
</template>

<style scoped>
.board {
  display: grid;
  gap: var(--s3);
}
.tools,
.files,
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
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
.node:focus-visible .reach {
  fill: #e0a23c88;
}
.fault {
  fill: none;
  stroke: var(--hot);
}
.typed,
.depth {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: var(--s3);
  align-items: end;
}
.depth {
  grid-template-columns: 10rem 1fr;
}
figure {
  margin: 0;
}
figure svg {
  width: 100%;
  height: 4.2rem;
}
.curve {
  fill: none;
  stroke: var(--wet);
  stroke-width: 2.5px;
}
.curve-level {
  stroke: var(--ink);
  stroke-width: 1.5px;
}
.small {
  font-size: 0.88rem;
}
.undercut-note {
  background: var(--warm-light);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
}
.problem {
  color: var(--hot);
  font-weight: 600;
}
@media (max-width: 43rem) {
  .typed,
  .depth {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
