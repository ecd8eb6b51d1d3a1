<script setup lang="ts">
/** A run while hands are in it: the one next thing, its target and its clock; a knock goes on. Usage: <RunKnocking :run /> */
import { computed, ref } from 'vue'
import type { Stage } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { issueWords } from '~/parts/words/mix'
import type { StandingRun } from '../useRun'
import { bowlNameOf } from './advance'
import { useKnocking } from './useKnocking'

const props = defineProps<{ run: StandingRun }>()
const units = useUnits()
// The run stays the same for as long as it is shown.

const knocking = useKnocking(props.run)

/** From the first water to the piece coming out there is something to put a thermometer in. */
const THERMOMETER_STAGES: ReadonlySet<Stage> = new Set(['sift', 'soak', 'stir', 'pour'])
const fixing = ref(false)
const bowlName = computed(() => bowlNameOf(props.run.step, props.run.facts))
const heading = computed(() => {
  const { run } = props
  if (run.view.pastWorking)
    return {
      title: 'It should have set by now',
      how: 'Go on tapping through what was done, or give it up and say why.',
    }
  return {
    title: run.words?.title ?? '',
    how:
      run.step === 'prepare' && run.record.plan.mould.members
        ? 'For this mould. Tick what is done; what does not apply can stay open.'
        : (run.words?.how ?? ''),
  }
})
const issues = computed(() =>
  props.run.step === 'start_sift' || props.run.step === 'weigh_filler' ? props.run.facts.issues : [],
)
</script>

<template>
  <RunFrame :run>
    <p v-if="bowlName" class="bowl" data-testid="bowl">{{ bowlName }}</p>
    <h1>{{ heading.title }}</h1>
    <p class="how">{{ heading.how }}</p>
    <RunTarget
      v-if="knocking.weighing.targetG !== undefined && !knocking.asks"
      :target-g="knocking.weighing.targetG"
      :scoops="knocking.weighing.scoops"
      :phase="knocking.weighing.phase"
      :scale-name="knocking.scale.name"
      :gone="knocking.scale.isGone"
    />
    <div class="split" :class="{ alone: !run.view.clock }">
      <div v-if="run.view.clock" class="timed">
        <RunClock
          :clock="run.view.clock"
          :others="run.view.otherClocks"
          :plan="run.record.plan"
          :now-ms="run.now"
        />
        <RunLook :facts="run.facts" :now-ms="run.now" />
      </div>
      <div class="guide">
        <RunTasks :facts="run.facts" :step="run.step" @record="run.put" />
        <div class="later hints">
          <RunHow
            v-if="run.words && !run.view.pastWorking"
            :facts="run.facts"
            :words="run.words"
            :now-ms="run.now"
          />
          <RunGuidance :facts="run.facts" :step="run.step" :now-ms="run.now" />
        </div>
      </div>
    </div>
    <RunBeat v-if="run.step === 'tap'" class="later" />
    <p v-for="issue in issues" :key="issue.code" class="issue">{{ issueWords(issue, units) }}</p>
    <template #aside>
      <RunDeadline :facts="run.facts" :now-ms="run.now" />
      <RunCautions :run />
      <RunHeed :plan="run.record.plan" :stage="run.view.stage" class="later" />
      <RunAir
        v-if="run.step === 'tap' || run.step === 'vibrate'"
        class="later"
        :facts="run.facts"
        :now-ms="run.now"
      />
    </template>
    <template #dock>
      <RunTools :run :fixable="run.step !== 'prepare'" @fix="fixing = true" />
      <RunFollow v-if="knocking.asks" :run />
      <RunPool v-else :run :knocking />
    </template>
    <template #rest>
      <RunScales
        v-if="knocking.weighing.isNow"
        :weighing="knocking.weighing"
        :scale="knocking.scale"
        :buttons="knocking.buttons"
      />
      <RunThermometers
        v-if="THERMOMETER_STAGES.has(run.view.stage)"
        :pour-id="run.id"
        :facts="run.facts"
        @record="run.put"
      />
      <RunNoise v-if="knocking.mayBeNoise" :noise="knocking.noise" />
    </template>
  </RunFrame>
  <RunFix
    v-model="fixing"
    :facts="run.facts"
    :step="run.step"
    :now-ms="run.now"
    @record="run.put(...$event)"
  />
</template>

<style scoped>
.bowl {
  font-weight: 700;
}
.split {
  display: grid;
  grid-template-columns: minmax(0, auto) minmax(15rem, 1fr);
  gap: var(--s3) var(--s5);
  align-items: start;
}
.split.alone {
  grid-template-columns: 1fr;
}
/* Where both have no room beside each other the bowl goes under its clock. */
.timed {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: var(--s4);
}
/* Its words break before that. */
.timed > .clocks {
  flex: 1 1 0;
  min-width: min-content;
}
.guide,
.hints {
  display: grid;
  gap: var(--s2);
  min-width: 0;
}
.issue {
  background: var(--warm-light);
  color: var(--ink);
  border-radius: 0.6rem;
  border-left: 6px solid var(--warm);
  padding: var(--s2) var(--s3);
  font-weight: 600;
}
@media (max-width: 56rem) {
  .split {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 43rem) {
  .split,
  .guide {
    display: contents;
  }
}
</style>
