<script setup lang="ts">
/**
 * A drawing board for the half profile of a round form: points and curves on a grid, to scale, by mouse, touch or keys.
 * Usage: <ProfileBoard v-model="method" :fault-at="[30, 50]" @problem="…" />
 */
import { Plus, Spline, Trash } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { findUndercuts, flattenProfile, wallThickness, type ProfileNode } from '#core/mould'
import { useUnits } from '~/parts/show/useUnits'
import type { ProfileMethod } from './profileBoard'
import { innerFrom, insertAfter, moveNode, removeNode, toggleSmooth } from './profileEdit'

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
const nodes = computed(() => method.value[which.value])
const node = computed(() => nodes.value[selected.value])
function put(next: ProfileNode[]) {
  method.value = { ...method.value, [which.value]: next }
}
function takeIn(read: ProfileNode[]) {
  put(read)
  selected.value = 0
}

const outerLine = computed(() => flattenProfile(method.value.outer))
const undercuts = computed(() => (method.value.outer.length > 1 ? findUndercuts(outerLine.value) : []))
const wall = computed(() =>
  method.value.inner.length > 1
    ? wallThickness(outerLine.value, flattenProfile(method.value.inner))
    : undefined,
)
const level = computed(() => {
  const floorMm = Math.min(...outerLine.value.map((p) => p[1]))
  const rimMm = outerLine.value.at(-1)?.[1] ?? 0
  return floorMm + (method.value.fillHeightMm ?? rimMm - floorMm)
})

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
    <ProfileDrawing
      v-model:selected="selected"
      :method="method"
      :which="which"
      :level="level"
      :fault-at="faultAt"
      @put="put"
      @add="add"
      @remove="remove"
    />
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
          ><Trash :size="20"
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
    <ProfileDepth
      :line="outerLine"
      :level="level"
      @fill="method = { ...method, fillHeightMm: $event }"
      @problem="emit('problem', 'profile.fill', $event)"
    />
    <ProfileFiles :nodes="nodes" @read="takeIn" />
  </div>
</template>

<style scoped>
.board {
  display: grid;
  gap: var(--s3);
}
.tools,
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.typed {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: var(--s3);
  align-items: end;
}
.undercut-note {
  background: var(--warm-light);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
}
@media (max-width: 43rem) {
  .typed {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
