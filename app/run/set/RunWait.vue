<script setup lang="ts">
/**
 * While it sets: what to look at now, what else was seen, and that it is out already. One tap records what was seen, at
 * that moment; for a little while it can be made "already" or "not yet", or taken back.
 * Usage: <RunWait :run @out />
 */
import { Check } from '@lucide/vue'
import { computed } from 'vue'
import { CUES, CUE_ANSWERS, TOUCH_CUES, type CueAnswer, type TouchCue } from '#core/forecast'
import type { EventBody } from '#core/pour'
import { MS_PER } from '#core/units'
import { momentText, spanText } from '~/parts/show/time'
import { CUE_QUESTIONS } from '~/parts/words/cues'
import { ANSWER_WORDS } from '~/parts/words/demould'
import { TOUCH_WORDS } from '~/parts/words/pour'
import type { StandingRun } from '../useRun'

const props = defineProps<{ run: StandingRun }>()
const emit = defineEmits<{ out: [] }>()

/** Warmth is asked of a piece that gets warm, and of no other. */
const cues = computed(() =>
  TOUCH_CUES.filter((cue) => !CUES[cue].heat || props.run.facts.inHand.marks.warmS !== undefined),
)
type Touch = Extract<EventBody, { type: 'touch' }>
const touches = computed(() =>
  props.run.facts.live.flatMap(({ id, body, occurredAtMs: atMs }) =>
    body.type === 'touch' ? [{ id, cue: body.cue, atMs, answer: answerOf(body) }] : [],
  ),
)
function answerOf({ seen, already }: Touch): CueAnswer {
  return !seen ? 'not_yet' : already ? 'already' : 'now'
}
const bodyOf = (cue: TouchCue, answer: CueAnswer): Touch => ({
  type: 'touch',
  cue,
  seen: answer !== 'not_yet',
  ...(answer === 'already' ? { already: true } : {}),
})
const lastOf = computed(() => new Map(touches.value.map((t) => [t.cue, t])))
const isDone = (cue: TouchCue) => {
  const answer = lastOf.value.get(cue)?.answer
  return answer !== undefined && answer !== 'not_yet'
}

/** What was recorded last, for as long as it can still be changed with one touch. */
const CHANGEABLE_MS = 1.5 * MS_PER.min
const justNow = computed(() => {
  const last = touches.value.at(-1)
  const leftMs = last ? last.atMs + CHANGEABLE_MS - props.run.now : 0
  return last && leftMs > 0 ? { ...last, leftMs } : undefined
})
function change(to: CueAnswer) {
  if (!justNow.value) return
  const { id, cue, atMs } = justNow.value
  props.run.putAt(
    { atMs: props.run.now, body: { type: 'void', targetId: id } },
    { atMs, body: bodyOf(cue, to) },
  )
}
const takeBack = () => justNow.value && props.run.put({ type: 'void', targetId: justNow.value.id })

const next = computed(() => props.run.facts.learnt?.next)
/** Until it is time to look, ms. */
const inMs = computed(() => {
  const { settingStartMs } = props.run.facts
  return next.value && settingStartMs !== undefined
    ? settingStartMs + next.value.atS * 1000 - props.run.now
    : 0
})
</script>

<template>
  <section class="pool wait" aria-label="What it shows">
    <p v-if="justNow" class="recorded" role="status" data-testid="just-recorded">
      <span class="what">
        <Check :size="20" aria-hidden="true" />
        <b>{{ TOUCH_WORDS[justNow.cue] }}: {{ ANSWER_WORDS[justNow.answer].toLowerCase() }}</b>
        <span class="at"
          >{{ momentText(justNow.atMs, run.now) }}; to change for {{ spanText(justNow.leftMs) }}</span
        >
      </span>
      <span class="changes">
        <template v-for="as in CUE_ANSWERS" :key="as">
          <button v-if="as !== justNow.answer" type="button" @click="change(as)">
            {{ ANSWER_WORDS[as] }}
          </button>
        </template>
        <button type="button" @click="takeBack">Take it back</button>
      </span>
    </p>
    <div v-if="next" class="asked" data-testid="look">
      <p class="ask">
        <span v-if="inMs > 0" class="when">In {{ spanText(inMs) }}:</span>
        {{ CUE_QUESTIONS[next.cue] }}
      </p>
      <div class="answers">
        <button v-for="as in CUE_ANSWERS" :key="as" type="button" @click="run.put(bodyOf(next.cue, as))">
          {{ ANSWER_WORDS[as] }}
        </button>
      </div>
    </div>
    <p v-else class="ask">
      {{
        run.facts.learnt
          ? 'Nothing that would tell more. Leave it until its time.'
          : 'Working out what to look at…'
      }}
    </p>
    <div class="cues" role="group" aria-label="What else was seen or felt">
      <p class="else">Seen or felt just now:</p>
      <button
        v-for="cue in cues"
        :key="cue"
        type="button"
        :disabled="isDone(cue)"
        @click="run.put(bodyOf(cue, 'now'))"
      >
        <Check v-if="isDone(cue)" :size="20" aria-hidden="true" />
        <span>{{ TOUCH_WORDS[cue] }}</span>
        <span v-if="lastOf.has(cue)" class="at"
          >{{ lastOf.get(cue)!.answer === 'not_yet' ? 'not at ' : ''
          }}{{ momentText(lastOf.get(cue)!.atMs, run.now) }}</span
        >
      </button>
      <button type="button" class="early" @click="emit('out')">It is already out of the mould</button>
    </div>
  </section>
</template>

<style scoped>
.wait {
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
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
  font-size: clamp(1.15rem, 2.2vw, 1.5rem);
  line-height: 1.15;
}
.when {
  font-variant-numeric: tabular-nums;
}
.answers {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: var(--s3);
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
  cursor: pointer;
}
.answers button {
  min-height: 3.6rem;
  padding: 0 var(--s1);
  border-width: 3px;
  font-size: clamp(1.05rem, 2.2vw, 1.4rem);
}
button:disabled {
  border-style: dashed;
  cursor: default;
}
.cues,
.changes,
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
.else {
  font-weight: 600;
}
.recorded {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s2) var(--s4);
  padding: var(--s2) var(--s3);
  border: 2px dashed var(--on-pool);
  border-radius: 1.1rem;
}
.at {
  font-weight: 400;
}
.early {
  margin-left: auto;
  text-decoration: underline;
}
@media (max-width: 56rem) {
  .asked {
    grid-template-columns: 1fr;
    gap: var(--s2);
  }
}
@media (max-width: 43rem) {
  .wait,
  .answers {
    gap: var(--s2);
  }
  .early {
    order: -1;
    width: 100%;
  }
}
</style>
