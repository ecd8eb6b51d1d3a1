<script setup lang="ts">
/** A run while the piece dries: when it will do for what, and its next weighing. Usage: <RunDrying :run /> */
import { computed, ref } from 'vue'
import { dryingAhead } from '#core/pour'
import { MS_PER } from '#core/units'
import { useKnock } from '../knock/useKnock'
import type { StandingRun } from '../useRun'

const props = defineProps<{ run: StandingRun }>()
/** A weighing is typed or taken, never knocked; the key that takes back does so here, too. */

useKnock(() => {}, props.run.undo)
const ending = ref(false)
/** By the minute: dates do not move faster. */
const minute = computed(() => Math.floor(props.run.now / MS_PER.min) * MS_PER.min)
const ahead = computed(() => dryingAhead(props.run.facts, minute.value))
</script>

<template>
  <RunFrame :run>
    <h1>{{ run.words?.title }}</h1>
    <p class="how">{{ run.words?.how }}</p>
    <div class="split">
      <div class="when">
        <RunClock
          v-if="run.view.clock"
          :clock="run.view.clock"
          :others="run.view.otherClocks"
          :plan="run.record.plan"
          :now-ms="run.now"
        />
        <RunDryLeft
          :facts="run.facts"
          :now-ms="run.now"
          @take-back="run.put({ type: 'void', targetId: $event })"
        />
      </div>
      <DryDates v-if="ahead" class="later" :dates="ahead.dates" :now-ms="run.now" />
    </div>
    <template #aside><RunCautions :run /></template>
    <template #dock>
      <RunTools v-model:ending="ending" :run />
      <RunDry :facts="run.facts" :now-ms="run.now" @record="run.put" @finish="ending = true" />
    </template>
    <template #rest>
      <template v-if="ahead">
        <RunFinish :facts="run.facts" :tasks="ahead.tasks" :now-ms="run.now" @record="run.put" />
        <RunWhere :facts="run.facts" :ahead="ahead" :now-ms="run.now" @record="run.put" />
      </template>
      <RunHeed :plan="run.record.plan" :stage="run.view.stage" />
    </template>
  </RunFrame>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: fit-content(44%) minmax(0, 1fr);
  gap: var(--s3) var(--s5);
  align-items: start;
}
.when {
  display: grid;
  gap: var(--s2);
}
@media (max-width: 56rem) {
  .split {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 43rem) {
  .split,
  .when {
    display: contents;
  }
}
</style>
