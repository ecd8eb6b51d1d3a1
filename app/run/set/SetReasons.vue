<script setup lang="ts">
/** Why it is forecast so, how hot it is, and what would help. Usage: <SetReasons :facts :pour-id :curve :now-ms /> */
import { computed } from 'vue'
import { LATEST_OUT } from '#core/demould'
import type { SetCurve } from '#core/forecast'
import { actNow, conditionsOf, problemOf, wetMassG, type PourOutlook } from '#core/pour'
import { MS_PER } from '#core/units'
import { curveAt, readLatelyC } from '~/parts/set/setSeries'
import { durationText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { ACT_WORDS, CONDITION_WORDS, LATEST_WORDS } from '~/parts/words/demould'
import { useForecasts } from '~/stores/forecasts'
import { movedSentence } from './setWords'
import { useSettingTime } from './useSettingTime'

const props = defineProps<{
  facts: PourOutlook
  pourId: string
  curve: SetCurve | undefined
  nowMs: number
}>()
const units = useUnits()
const forecasts = useForecasts()

const { startMs, nowS, at } = useSettingTime(props)

const latest = computed(() => LATEST_OUT[props.facts.plan.mould.kind])
const moved = computed(() => props.facts.learnt?.moved)
const marks = computed(() => props.facts.inHand.marks)
/** A thermometer that was heard so lately says how it is inside. */
const LATELY_MS = 3 * MS_PER.min
const probeC = computed(() =>
  readLatelyC(forecasts.tracesOf(props.pourId, props.facts), props.facts.batch, props.nowMs, LATELY_MS),
)
const coreC = computed(() => props.curve && curveAt(props.curve, props.curve.coreC, nowS.value))
const surfaceC = computed(() => props.curve && curveAt(props.curve, props.curve.surfaceC, nowS.value))
const problem = computed(() => problemOf(props.facts, props.facts.inHand))
const conditions = computed(() =>
  conditionsOf(problem.value, props.facts.inHand, wetMassG(props.facts.plan, props.facts.mix)),
)
/** Once a minute: it asks the models. */
const minute = computed(() => Math.floor(nowS.value / 60))
const act = computed(() => {
  const pace = props.facts.learnt?.pace ?? { meanLn: 0, sigmaLn: props.facts.sigmaLn }
  return actNow(problem.value, pace, conditions.value, 60 * minute.value)
})
</script>

<template>
  <div class="reasons later">
    <p v-if="latest">Out {{ LATEST_WORDS[latest.why] }}.</p>
    <p v-if="moved && !facts.learnt?.farOff" data-testid="moved">
      {{ movedSentence(moved, startMs, nowMs) }}
    </p>
    <p v-else-if="!moved">By bag, mix and temperatures; a look sharpens it.</p>
    <p v-if="coreC !== undefined && surfaceC !== undefined" data-testid="inside">
      Inside
      <template v-if="probeC !== undefined"><b>{{ units.temp(probeC) }}</b> by the thermometer</template
      ><template v-else>about <b>{{ units.temp(coreC) }}</b></template
      >, surface about <b>{{ units.temp(surfaceC) }}</b>; hottest
      {{
        marks.peakS > nowS
          ? `about ${units.temp(marks.peakC)} at ${at(marks.peakS)}`
          : `at ${at(marks.peakS)}`
      }}.
    </p>
    <p v-for="condition in conditions" :key="condition">{{ CONDITION_WORDS[condition] }}</p>
    <p v-if="act" data-testid="act">
      {{ ACT_WORDS[act.id] }} it would come out at <b>{{ at(act.outS) }}</b>,
      {{ durationText(facts.demould.recommendedS - act.outS) }} sooner.
    </p>
  </div>
</template>

<style scoped>
.reasons {
  display: grid;
  gap: var(--s2);
  min-width: 0;
}
</style>
