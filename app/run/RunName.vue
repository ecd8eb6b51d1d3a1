<script setup lang="ts">
/** Which pour it is, how far it is, what was done last and by whom. Usage: <RunName :run /> */
import { computed } from 'vue'
import { STAGES } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { eventWords } from '~/parts/words/events'
import { stageWord } from '~/parts/words/pour'
import type { StandingRun } from './useRun'

const props = defineProps<{ run: StandingRun }>()
const units = useUnits()

const stage = computed(() => {
  const { stage } = props.run.view
  return { name: stageWord(stage, props.run.record.plan), nth: STAGES.indexOf(stage) + 1 }
})
/** Several may stand at one bench. */
const lastDone = computed(() => props.run.facts.live.at(-1))
</script>

<template>
  <div class="name">
    <RingSign
      class="sign"
      :rings="run.view.rings"
      :size="230"
      :label="`${stage.name}, stage ${stage.nth} of 9`"
      :failed="run.view.status === 'failed'"
    />
    <div class="who">
      <p class="piece">{{ run.record.plan.piece }}</p>
      <p class="stage">{{ stage.name }} · {{ stage.nth }} of 9</p>
      <p v-if="lastDone" class="stage last" data-testid="last-done">
        {{ eventWords(lastDone.body, units) }}<b v-if="lastDone.who"> · {{ lastDone.who }}</b>
      </p>
    </div>
  </div>
</template>

<style scoped>
.name {
  display: grid;
  gap: var(--s2);
  min-width: 0;
}
.sign {
  width: 7rem;
  max-width: 100%;
  height: auto;
}
.piece {
  font-weight: 700;
  font-size: 1.2rem;
  line-height: 1.15;
  overflow-wrap: anywhere;
}
.stage {
  color: var(--on-ground-soft);
}
.last {
  font-size: 0.95rem;
}
@media (max-width: 43rem) {
  .name {
    grid-template-columns: auto 1fr;
    gap: 0 var(--s3);
    align-items: center;
  }
  .sign {
    width: 2.75rem;
  }
  .piece {
    font-size: 1.1rem;
  }
  .who {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s3);
    align-items: baseline;
  }
}
</style>
