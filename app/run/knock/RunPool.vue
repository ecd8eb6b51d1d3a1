<script setup lang="ts">
/** The lower part of the run while hands are in it: one target, and beside it what is to be typed. Usage: <RunPool :run :knocking /> */
import { onLongPress } from '@vueuse/core'
import { useTemplateRef } from 'vue'
import { MOST_WEIGHED_G } from '#core/bounds'
import { usePreferences } from '~/parts/show/usePreferences'
import type { StandingRun } from '../useRun'
import { isWeighStep } from './advance'
import type { Knocking } from './useKnocking'

const props = defineProps<{ run: StandingRun; knocking: Knocking }>()
const { anyKey } = usePreferences()

/** Held for so long it takes back instead of going on. */
const HOLD_MS = 900
const target = useTemplateRef<HTMLElement>('target')
let held = false
onLongPress(
  target,
  () => {
    held = true
    props.run.undo()
  },
  { delay: HOLD_MS, distanceThreshold: 40 },
)
function tapped() {
  // The finger that held it down is lifted now: that is no knock.
  if (held) held = false
  else props.knocking.knock()
}
const setMass = (massG: number | undefined) => props.knocking.weighing.setMass(massG)
const setScoops = (count: number | undefined) =>
  setMass(count === undefined ? undefined : count * props.knocking.weighing.scoops!.gPerScoop)
const setProblem = (message: string) => props.knocking.weighing.setProblem(message)
</script>

<template>
  <section class="pool" aria-label="Next">
    <div v-if="isWeighStep(run.step) && !knocking.weighing.phase" class="actual">
      <QuantityField
        v-if="knocking.weighing.scoops"
        :key="`scoops ${run.step}${run.facts.batch}`"
        :model-value="(knocking.weighing.massG ?? 0) / knocking.weighing.scoops.gPerScoop"
        kind="number"
        label="Scoops in it"
        large
        :min="0.1"
        :max="10000"
        @update:model-value="setScoops"
        @problem="setProblem"
      />
      <QuantityField
        v-else
        :key="`${run.step}${run.facts.batch}`"
        :model-value="knocking.weighing.massG"
        kind="mass"
        :water="run.step === 'weigh_water'"
        label="On the scale"
        large
        :optional="knocking.weighing.isExpected"
        :min="0.1"
        :max="MOST_WEIGHED_G"
        @update:model-value="setMass"
        @problem="setProblem"
      />
    </div>
    <button ref="target" type="button" class="knock" data-pool @pointerdown="held = false" @click="tapped">
      <span class="figure">{{ knocking.action }}</span>
      <span class="hint"
        >touch anywhere here{{ anyKey ? ', or any key' : ''
        }}{{ run.facts.live.length > 0 ? '; hold it to take the last thing back' : '' }}</span
      >
    </button>
  </section>
</template>

<style scoped>
.pool {
  /* It gives way to notices before it is pushed out of the window. */
  min-height: calc(32dvh - 3.9rem - 0.7 * var(--notices, 0px));
  align-content: stretch;
}
.knock {
  display: grid;
  place-content: center;
  justify-items: center;
  gap: var(--s2);
  background: transparent;
  border: 0;
  border-radius: 1.4rem;
  color: inherit;
  text-align: center;
  cursor: pointer;
  min-height: 5rem;
}
.knock .figure {
  font-size: clamp(1.9rem, 6.4vw, 4.6rem);
  line-height: 1;
}
.actual {
  justify-self: center;
  width: min(20rem, 100%);
}
@media (min-width: 43.01rem) {
  .pool:has(.actual) {
    grid-template-columns: minmax(14rem, 22rem) 1fr;
    align-items: center;
  }
  .pool:has(.actual) .knock {
    align-self: stretch;
  }
}
@media (max-height: 30rem) {
  .pool {
    min-height: 0;
  }
}
</style>
