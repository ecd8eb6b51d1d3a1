<script setup lang="ts">
/** The clock that matters, and the ones behind it. Usage: <RunClock :clock :others :plan :now-ms /> */
import { computed } from 'vue'
import type { Clock, PourPlan } from '#core/pour'
import { momentText, spanSpoken, spanText } from '~/parts/show/time'
import { LATE_WORDS, clockWord } from '~/parts/words/pour'

const props = defineProps<{
  clock: Clock | undefined
  others: readonly Clock[]
  plan: PourPlan
  nowMs: number
}>()

const leftMs = computed(() => (props.clock ? props.clock.dueMs - props.nowMs : 0))
const late = computed(() => leftMs.value < 0)
/** Harm only where lateness spoils the pour; elsewhere late is merely late. */
const harmful = computed(() => late.value && props.clock?.id === 'work_end')
const spoken = computed(() => {
  if (!props.clock) return ''
  const span = spanSpoken(leftMs.value)
  return `${clockWord(props.clock.id, props.plan)}: ${late.value ? `${span} ago` : `in ${span}`}`
})
</script>

<template>
  <div class="clocks">
    <p v-if="clock" class="main" :class="{ late, harmful }" role="timer" :aria-label="spoken">
      <span class="label">{{ clockWord(clock.id, plan) }}{{ late ? '' : ' in' }}</span>
      <span
        class="figure big"
        :class="{ long: spanText(leftMs).length > 5, words: / [a-z]{3}/.test(spanText(leftMs)) }"
        >{{ late ? '+' : '' }}{{ spanText(leftMs) }}</span
      >
      <span v-if="late" class="still">{{
        clock.untilMs ? `At the latest by ${momentText(clock.untilMs, nowMs)}.` : LATE_WORDS[clock.id]
      }}</span>
      <span v-else-if="clock.lowMs !== undefined && clock.highMs !== undefined" class="range">
        likely between {{ momentText(clock.lowMs, nowMs) }} and {{ momentText(clock.highMs, nowMs) }}
      </span>
    </p>
    <ul v-if="others.length" class="others">
      <li v-for="other in others" :key="other.id">
        <span>{{ clockWord(other.id, plan) }}</span>
        <b v-if="other.id === 'soft_finish'">until {{ momentText(other.untilMs!, nowMs) }}</b>
        <b v-else-if="other.dueMs > nowMs">in {{ spanText(other.dueMs - nowMs) }}</b>
        <b v-else-if="other.untilMs">now, for {{ spanText(other.untilMs - nowMs) }}</b>
        <b v-else>due</b>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.clocks {
  display: grid;
  gap: var(--s3);
}
.main {
  display: grid;
}
.label {
  font-weight: 600;
  color: var(--on-ground-soft);
}
.big {
  font-size: clamp(4.6rem, 10vw, 7.4rem);
  line-height: 0.95;
}
.big.long {
  font-size: clamp(3.4rem, 9vw, 6.5rem);
}
/* Days and more are read in words, and none of them hurries. */
.big.words {
  font-size: clamp(2.4rem, 4.4vw, 3.6rem);
  white-space: nowrap;
}
.harmful .big {
  background: var(--hot);
  color: var(--plaster);
  border-radius: 1.2rem;
  padding: 0.05em 0.15em 0.1em;
  justify-self: start;
}
.still {
  font-weight: 600;
  max-width: 46ch;
}
.range,
.others {
  color: var(--on-ground-soft);
}
.others {
  max-width: 24rem;
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s5);
}
.others li {
  display: flex;
  gap: var(--s2);
}
.others b {
  color: var(--on-ground);
}
@media (max-width: 43rem) {
  .big {
    font-size: 4.2rem;
  }
  .others {
    font-size: 0.95rem;
  }
  .others li:nth-child(n + 2) {
    display: none;
  }
}
</style>
