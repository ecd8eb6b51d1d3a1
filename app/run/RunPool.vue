<script setup lang="ts">
/**
 * The lower half of the live run: one target, or what stands in its place while it sets, comes out and dries.
 * Usage: <RunPool :facts :step :mode :action :weighing :now-ms :record-path @knock @undo @record @mass @problem @finish />
 */
import { onLongPress } from '@vueuse/core'
import { useTemplateRef, type UnwrapNestedRefs } from 'vue'
import type { CueAnswer, TouchCue } from '#core/forecast'
import type { DemouldOutcome, EventBody, PourOutlook, StepId } from '#core/pour'
import { MOST_WEIGHED_G } from '#core/bounds'
import { usePreferences } from '~/parts/show/usePreferences'
import type { useWeighing } from './weigh/useWeighing'
import { isWeighStep, type PoolMode } from './knock/advance'

defineProps<{
  facts: PourOutlook
  step: StepId | undefined
  mode: PoolMode
  action: string
  weighing: UnwrapNestedRefs<ReturnType<typeof useWeighing>>
  nowMs: number
  canUndo: boolean
  recordPath: string
}>()
const emit = defineEmits<{
  knock: []
  undo: []
  record: [body: EventBody]
  mass: [massG: number | undefined]
  problem: [message: string]
  finish: []
}>()
const { anyKey } = usePreferences()

/** Held for so long it takes back instead of going on. */
const HOLD_MS = 900
const target = useTemplateRef<HTMLElement>('target')
let held = false
onLongPress(
  target,
  () => {
    held = true
    emit('undo')
  },
  { delay: HOLD_MS, distanceThreshold: 40 },
)
function tapped() {
  // The finger that held it down is lifted now: that is no knock.
  if (held) held = false
  else emit('knock')
}
const touch = (cue: TouchCue, answer: CueAnswer) =>
  emit('record', {
    type: 'touch',
    cue,
    seen: answer !== 'not_yet',
    ...(answer === 'already' ? { already: true } : {}),
  })
const out = (outcome: DemouldOutcome, gripped = false) =>
  emit('record', { type: 'demoulded', outcome, ...(gripped ? { gripped } : {}) })
</script>

<template>
  <section class="pool" aria-label="Next">
    <div v-if="isWeighStep(step) && !weighing.phase" class="actual">
      <QuantityField
        :key="`${step}${facts.batch}`"
        :model-value="weighing.massG"
        kind="mass"
        label="On the scale"
        large
        :optional="weighing.isExpected"
        :min="0.1"
        :max="MOST_WEIGHED_G"
        @update:model-value="emit('mass', $event)"
        @problem="emit('problem', $event)"
      />
    </div>
    <button
      v-if="mode === 'knock'"
      ref="target"
      type="button"
      class="knock"
      data-pool
      @pointerdown="held = false"
      @click="tapped"
    >
      <span class="figure">{{ action }}</span>
      <span
        >touch anywhere here{{ anyKey ? ', or any key' : ''
        }}{{ canUndo ? '; hold it to take the last thing back' : '' }}</span
      >
    </button>
    <RunWait v-else-if="mode === 'wait'" :facts="facts" :now-ms="nowMs" @touch="touch" @out="out('whole')" />
    <div v-else-if="mode === 'demould'" class="out">
      <button ref="target" type="button" class="knock" data-pool @pointerdown="held = false" @click="tapped">
        <span class="figure">{{ action }}</span>
        <span>touch here{{ anyKey ? ', or any key' : '' }}</span>
      </button>
      <button type="button" class="lesser" @click="out('whole', true)">Whole, but it gripped</button>
      <button type="button" class="lesser" @click="out('damaged')">Out, with damage</button>
      <button type="button" class="lesser" @click="out('broken')">It broke</button>
    </div>
    <RunDry
      v-else-if="mode === 'dry'"
      :facts="facts"
      :now-ms="nowMs"
      @weigh="
        (massG, reading) => emit('record', { type: 'weighing', massG, ...(reading ? { reading } : {}) })
      "
      @feel="emit('record', { type: 'felt_dry', clammy: $event })"
      @take-back="emit('record', { type: 'void', targetId: $event })"
      @finish="emit('finish')"
    />
    <NuxtLink v-else :to="recordPath" class="knock"><span class="figure">See its record</span></NuxtLink>
  </section>
</template>

<style scoped>
.pool {
  background: var(--pool-colour);
  color: var(--on-pool);
  border-radius: var(--pool) var(--pool) 0 0;
  padding: var(--s5) var(--s6);
  display: flex;
  flex-direction: column;
  align-items: stretch;
  justify-content: center;
  gap: var(--s3);
}
.knock {
  flex: 1;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: var(--s2);
  background: transparent;
  border: 0;
  color: inherit;
  text-align: center;
  text-decoration: none;
  cursor: pointer;
  min-height: 8rem;
  border-radius: 1.4rem;
}
.knock .figure {
  font-size: clamp(2.6rem, 8vw, 5.2rem);
  line-height: 1;
}
.actual {
  align-self: center;
  width: min(20rem, 100%);
  display: grid;
  gap: var(--s2);
}
.out {
  flex: 1;
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  grid-template-rows: 1fr auto;
  gap: var(--s3);
}
.out .knock {
  grid-column: 1 / -1;
}
.lesser {
  min-height: 3.4rem;
  border-radius: 999px;
  border: 2px solid currentColor;
  background: transparent;
  color: inherit;
  font-weight: 700;
  cursor: pointer;
}
@media (max-width: 43rem) {
  .pool {
    padding: var(--s4);
    border-radius: 2rem 2rem 0 0;
    min-height: 27dvh;
  }
}
</style>
