<script setup lang="ts">
/** While it sets: nothing to do but look, feel and say what was felt. Usage: <RunWait :facts :now-ms @touch @out /> */
import { Check } from '@lucide/vue'
import { computed } from 'vue'
import type { TouchCue } from '#core/forecast'
import type { PourOutlook } from '#core/pour'
import { momentText } from '~/parts/show/time'
import { TOUCH_WORDS } from '~/parts/words/pour'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const emit = defineEmits<{ touch: [cue: TouchCue]; out: [] }>()

const CUES: TouchCue[] = [
  'gloss_gone',
  'knife_cut_stays',
  'thumbnail_no_dent',
  'warm',
  'hottest',
  'cool_again',
]
const felt = computed(() => {
  const times = new Map<TouchCue, number>()
  for (const e of props.facts.live) if (e.body.type === 'touch') times.set(e.body.cue, e.occurredAtMs)
  return times
})
</script>

<template>
  <div class="wait">
    <p class="ask">Felt or seen it? Tap it.</p>
    <div class="cues">
      <button
        v-for="cue in CUES"
        :key="cue"
        type="button"
        :disabled="felt.has(cue)"
        @click="emit('touch', cue)"
      >
        <Check v-if="felt.has(cue)" :size="22" aria-hidden="true" />
        <span>{{ TOUCH_WORDS[cue] }}</span>
        <span v-if="felt.has(cue)" class="at">{{ momentText(felt.get(cue)!, nowMs) }}</span>
      </button>
    </div>
    <button type="button" class="early" @click="emit('out')">It is already out of the mould</button>
  </div>
</template>

<style scoped>
.wait {
  display: grid;
  gap: var(--s3);
  align-content: center;
  width: 100%;
  max-width: 60rem;
  margin: 0 auto;
}
.ask {
  font-family: var(--display);
  font-weight: 700;
  font-size: 1.5rem;
}
.cues {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(3, 1fr);
}
button {
  display: flex;
  align-items: center;
  justify-content: center;
  gap: var(--s2);
  min-height: 4.2rem;
  border-radius: 1.1rem;
  border: 2px solid var(--on-pool);
  background: transparent;
  color: var(--on-pool);
  font-weight: 700;
  font-size: 1.1rem;
  cursor: pointer;
}
button:disabled {
  background: var(--on-pool);
  color: var(--pool-colour);
  cursor: default;
}
.at {
  font-weight: 400;
}
.early {
  min-height: 44px;
  border: 0;
  text-decoration: underline;
  justify-self: start;
  font-size: 1rem;
}
@media (max-width: 43rem) {
  .cues {
    grid-template-columns: 1fr 1fr;
    gap: var(--s2);
  }
  button {
    min-height: 2.9rem;
    font-size: 1rem;
  }
  .ask {
    font-size: 1.2rem;
  }
  .wait {
    gap: var(--s2);
  }
}
</style>
