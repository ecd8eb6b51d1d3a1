<script setup lang="ts">
/**
 * The plan in one sentence, each part of which opens its editor. What is not as this workshop usually does it stands out;
 * what is missing is asked for. Usage: <PlanSentence :said :open :unusual :asked @open="(part) => …" />
 */
import type { PlanPart, SaidPart } from '~/parts/words/planSentence'

defineProps<{
  said: readonly SaidPart[]
  /** Its editor is open. */
  open: PlanPart | undefined
  unusual: ReadonlySet<PlanPart>
  /** What they want before the plan stands. */
  asked: ReadonlyMap<PlanPart, string>
}>()
const emit = defineEmits<{ open: [part: PlanPart] }>()
</script>

<template>
  <p class="sentence">
    <template v-for="{ part, before, words } in said" :key="part"
      >{{ before
      }}<span
        role="button"
        tabindex="0"
        :data-part="part"
        :class="{ unusual: unusual.has(part), asked: asked.has(part) }"
        :aria-expanded="open === part"
        aria-controls="plan-panel"
        @click="emit('open', part)"
        @keydown.enter.prevent="emit('open', part)"
        @keydown.space.prevent="emit('open', part)"
      >
        {{ words
        }}<span v-if="unusual.has(part) && !asked.has(part)" class="visually-hidden">{{
          ' (not as usual)'
        }}</span
        ><span v-if="asked.has(part)" class="asks">{{ ` ${asked.get(part)}` }}</span>
      </span></template
    >.
  </p>
</template>

<style scoped>
.sentence {
  font-family: var(--display);
  font-size: 1.22rem;
  line-height: 1.65;
  text-wrap: pretty;
}
/* Not a button's own element, which never breaks in two: in a line of words it breaks where words do. */
[role='button'] {
  padding: 0.45rem 0;
  font-weight: 650;
  text-decoration: underline 2px;
  text-decoration-color: var(--wet-light);
  text-underline-offset: 0.28em;
  cursor: pointer;
}
[role='button']:hover,
[role='button'][aria-expanded='true'] {
  text-decoration-color: currentcolor;
}
[role='button'][aria-expanded='true'] {
  color: var(--wet);
}
/* The whole plan is to stand on one screen of a desk. */
@media (min-width: 60.01rem) {
  .sentence {
    font-size: 1.15rem;
    line-height: 1.5;
  }
}
.unusual {
  text-decoration-color: var(--warm);
}
.asked {
  text-decoration-color: var(--hot);
}
.asks {
  color: var(--hot);
  font-style: italic;
}
</style>
