<script setup lang="ts">
/**
 * While it sets: what to look at, and what was found. One question at a time; any other cue is a touch away.
 * Usage: <RunWait :facts :now-ms @touch @out />
 */
import { Check } from '@lucide/vue'
import { computed, ref } from 'vue'
import { CUES, CUE_ANSWERS, TOUCH_CUES, type CueAnswer, type TouchCue } from '#core/forecast'
import type { PourOutlook } from '#core/pour'
import { momentText, spanText } from '~/parts/show/time'
import { CUE_QUESTIONS } from '~/parts/words/cues'
import { ANSWER_WORDS } from '~/parts/words/demould'
import { TOUCH_WORDS } from '~/parts/words/pour'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const emit = defineEmits<{ touch: [cue: TouchCue, answer: CueAnswer]; out: [] }>()

/** Warmth is asked of a piece that gets warm, and of no other. */
const cues = computed(() =>
  TOUCH_CUES.filter((cue) => !CUES[cue].heat || props.facts.inHand.marks.warmS !== undefined),
)
const found = computed(() => {
  const last = new Map<TouchCue, { atMs: number; answer: CueAnswer }>()
  for (const { body, occurredAtMs: atMs } of props.facts.live)
    if (body.type === 'touch')
      last.set(body.cue, { atMs, answer: !body.seen ? 'not_yet' : body.already ? 'already' : 'now' })
  return last
})
const isDone = (cue: TouchCue) => {
  const answer = found.value.get(cue)?.answer
  return answer !== undefined && answer !== 'not_yet'
}

const chosen = ref<TouchCue>()
const next = computed(() => props.facts.learnt?.next)
const asked = computed(() => chosen.value ?? next.value?.cue)
/** Until it is time to look, ms; nothing of one that the caster chose. */
const inMs = computed(() => {
  if (chosen.value || !next.value || props.facts.settingStartMs === undefined) return 0
  return props.facts.settingStartMs + next.value.atS * 1000 - props.nowMs
})
function answer(as: CueAnswer) {
  if (!asked.value) return
  emit('touch', asked.value, as)
  chosen.value = undefined
}
</script>

<template>
  <div class="wait">
    <div v-if="asked" class="asked" data-testid="look">
      <p class="ask">
        <span v-if="inMs > 0" class="when">In {{ spanText(inMs) }}</span>
        {{ CUE_QUESTIONS[asked] }}
      </p>
      <div class="answers">
        <button v-for="as in CUE_ANSWERS" :key="as" type="button" class="answer" @click="answer(as)">
          {{ ANSWER_WORDS[as] }}
        </button>
      </div>
    </div>
    <p v-else class="ask">
      {{
        facts.learnt
          ? 'Nothing that would tell more. Leave it until its time.'
          : 'Working out what to look at…'
      }}
    </p>
    <div class="cues" role="group" aria-label="What else was seen or felt">
      <button
        v-for="cue in cues"
        :key="cue"
        type="button"
        :disabled="isDone(cue)"
        :aria-pressed="chosen === cue"
        @click="chosen = chosen === cue ? undefined : cue"
      >
        <Check v-if="isDone(cue)" :size="20" aria-hidden="true" />
        <span>{{ TOUCH_WORDS[cue] }}</span>
        <span v-if="found.has(cue)" class="at"
          >{{ found.get(cue)!.answer === 'not_yet' ? 'not at ' : ''
          }}{{ momentText(found.get(cue)!.atMs, nowMs) }}</span
        >
      </button>
      <button type="button" class="early" @click="emit('out')">It is already out of the mould</button>
    </div>
  </div>
</template>

<style scoped>
.wait {
  display: grid;
  gap: var(--s3);
  width: 100%;
  max-width: 76rem;
  margin: 0 auto;
}
.asked {
  display: grid;
  grid-template-columns: minmax(14rem, 1fr) 2fr;
  gap: var(--s3);
  align-items: center;
}
.ask {
  font-family: var(--display);
  font-weight: 700;
  font-size: clamp(1.2rem, 2.2vw, 1.6rem);
  line-height: 1.15;
}
.when {
  font-variant-numeric: tabular-nums;
  margin-right: 0.4em;
}
.answers {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: var(--s3);
}
.answer {
  min-height: 4.4rem;
  font-size: clamp(1.2rem, 2.2vw, 1.5rem);
  border-width: 3px;
}
.cues {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
button {
  display: flex;
  align-items: center;
  justify-content: center;
  flex-wrap: wrap;
  gap: 0 var(--s2);
  min-height: 44px;
  padding: 0 var(--s3);
  border-radius: 1.1rem;
  border: 2px solid var(--on-pool);
  background: transparent;
  color: var(--on-pool);
  font-weight: 700;
  font-size: 1rem;
  cursor: pointer;
}
button:disabled,
button[aria-pressed='true'] {
  background: var(--on-pool);
  color: var(--pool-colour);
}
button:disabled {
  cursor: default;
}
.at {
  font-weight: 400;
}
.early {
  border: 0;
  text-decoration: underline;
}
@media (max-width: 43rem) {
  .asked {
    grid-template-columns: 1fr;
    gap: var(--s2);
  }
  .cues {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-bottom: 2px;
  }
  .cues button {
    flex: none;
  }
  .answer {
    min-height: 4rem;
  }
  .wait,
  .answers {
    gap: var(--s2);
  }
}
</style>
