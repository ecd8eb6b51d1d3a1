<script setup lang="ts">
/** A run while the piece sets, and when it is ready to come out. Usage: <RunSetting :run /> */
import { computed, ref } from 'vue'
import { useKnock } from '../knock/useKnock'
import { useForecasts } from '~/stores/forecasts'
import type { StandingRun } from '../useRun'
import { useSetCurve } from './useSetCurve'

const props = defineProps<{ run: StandingRun }>()
/** There is nothing to knock for: how it came out is asked. The key that takes back does so here, too. */

useKnock(() => {}, props.run.undo)
const curve = useSetCurve(props.run.id, () => props.run.facts)
const isOut = ref(false)
const fixing = ref(false)
const forecasts = useForecasts()
const learning = computed(() => forecasts.isLearning(props.run.id, props.run.facts))
const isWaiting = computed(() => props.run.mode === 'wait')
/** Of several casts some may be out while the others are still in their moulds. */
const question = computed(() => {
  const { pieces } = props.run.facts
  const out = pieces.filter((p) => p.out).length
  return out === 0 ? 'How did it come out?' : `${out} of ${pieces.length} are out. The others?`
})
</script>

<template>
  <RunFrame :run>
    <h1>{{ run.words?.title }}</h1>
    <p v-if="!isWaiting" class="how">{{ run.words?.how }}</p>
    <RunSet :facts="run.facts" :pour-id="run.id" :curve :learning :now-ms="run.now">
      <p v-if="learning" class="ask" role="status">Working out when it is ready…</p>
      <RunClock
        v-else-if="run.view.clock"
        :clock="run.view.clock"
        :others="run.view.otherClocks"
        :plan="run.record.plan"
        :now-ms="run.now"
      />
    </RunSet>
    <template #aside>
      <RunDeadline :facts="run.facts" :now-ms="run.now" />
      <RunCautions :run />
      <SetBurn :facts="run.facts" :curve :now-ms="run.now" />
      <RunDoubts :facts="run.facts" :pour-id="run.id" :now-ms="run.now" />
      <SetReasons :facts="run.facts" :pour-id="run.id" :curve :now-ms="run.now" />
    </template>
    <template #dock>
      <RunTools :run :fixable="isWaiting" @fix="fixing = true" />
      <RunWait v-if="isWaiting" :run @out="isOut = true" />
      <section v-else class="pool" aria-label="How did it come out?">
        <RunOut :pieces="run.facts.pieces" @record="run.put">
          <p class="ask">{{ question }}</p>
        </RunOut>
      </section>
    </template>
    <template #rest>
      <WayOut :facts="run.facts" :now-ms="run.now" />
      <RunHeed :plan="run.record.plan" :stage="run.view.stage" />
      <RunThermometers :pour-id="run.id" :facts="run.facts" @record="run.put" />
      <RunAfter
        v-if="isWaiting"
        :facts="run.facts"
        :pour-id="run.id"
        :now-ms="run.now"
        :soft-window="run.view.otherClocks.find((c) => c.id === 'soft_window')"
        @record="run.put"
      />
      <OddSigns />
    </template>
  </RunFrame>
  <SheetDialog v-model="isOut" :title="question">
    <RunOut :pieces="run.facts.pieces" @record="run.put" @all="isOut = false" />
  </SheetDialog>
  <RunFix
    v-model="fixing"
    :facts="run.facts"
    :step="run.step"
    :now-ms="run.now"
    @record="run.put(...$event)"
  />
</template>

<style scoped>
.ask {
  font-family: var(--display);
  font-weight: 700;
  font-size: 1.4rem;
}
</style>
