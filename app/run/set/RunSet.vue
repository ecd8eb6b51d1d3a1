<script setup lang="ts">
/**
 * While it sets: its clock (slotted in), how sure it is that it may come out, why, how hot it is, and its curve.
 * Usage: <RunSet :facts :pour-id :now-ms><RunClock … /></RunSet>
 */
import { computed, defineAsyncComponent, ref } from 'vue'
import { LATEST_OUT } from '#core/demould'
import { READY_ENOUGH, readyChance } from '#core/forecast'
import { burnHazard, contactToBurnS } from '#core/heat'
import { actNow, conditionsOf, problemOf, wetMassG, type PourOutlook } from '#core/pour'
import { figure } from '~/parts/show/figures'
import { fileName } from '~/parts/show/saveFile'
import { durationText, momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import {
  ACT_WORDS,
  BURN_WORDS,
  CONDITION_WORDS,
  CUE_SEEN,
  LATEST_WORDS,
  PROBE_FAULT_WORDS,
  SIGN_WORDS,
} from '~/parts/words/demould'
import { useForecasts } from '~/stores/forecasts'
import { curveAt } from '~/parts/set/setSeries'
import { movedSentence } from './setWords'
import { useSetCurve } from './useSetCurve'
import DepthStrip from './DepthStrip.vue'

const SetChart = defineAsyncComponent(() => import('~/parts/set/SetChart.vue'))

const props = defineProps<{ facts: PourOutlook; pourId: string; nowMs: number }>()
const units = useUnits()
const forecasts = useForecasts()
const curve = useSetCurve(props.pourId, () => props.facts)

const startMs = computed(() => props.facts.settingStartMs ?? 0)
const nowS = computed(() => (props.nowMs - startMs.value) / 1000)
const at = (s: number) => momentText(startMs.value + s * 1000, props.nowMs)

const chance = computed(() => readyChance(props.facts, props.facts.sigmaLn, nowS.value))
const chanceText = computed(() =>
  chance.value > 0.99 ? 'over 99 %' : chance.value < 0.01 ? 'under 1 %' : `${figure(100 * chance.value)} %`,
)
const floorHolds = computed(() => nowS.value < props.facts.demould.floorS)
const latest = computed(() => LATEST_OUT[props.facts.plan.mould.kind])
const moved = computed(() => props.facts.learnt?.moved)
const marks = computed(() => props.facts.inHand.marks)
const coreC = computed(() => curve.value && curveAt(curve.value, curve.value.coreC, nowS.value))
const surfaceC = computed(() => curve.value && curveAt(curve.value, curve.value.surfaceC, nowS.value))
/** Shown whatever the forecast says, for the hottest that it may get from here on. */
const burn = computed(() => {
  const hottestC = nowS.value > marks.value.surfacePeakS ? (surfaceC.value ?? 0) : marks.value.surfacePeakC
  const hazard = burnHazard(hottestC)
  if (hazard === 'none') return ''
  const s = contactToBurnS(hottestC)!
  return `${BURN_WORDS[hazard]}: its surface ${nowS.value > marks.value.surfacePeakS ? 'is' : 'gets'} to about ${units.temp(hottestC)}, which harms skin in ${durationText(s)}.`
})
const traces = computed(() => forecasts.probesOf.get(props.pourId) ?? [])
const cues = computed(() =>
  props.facts.live.flatMap(({ body, occurredAtMs }) =>
    body.type === 'touch' && occurredAtMs > startMs.value
      ? [
          {
            atMin: (occurredAtMs - startMs.value) / 60_000,
            label: `${CUE_SEEN[body.cue]}${body.seen ? '' : ': not yet'}`,
          },
        ]
      : [],
  ),
)
const uprights = computed(() => {
  const { setting, demould } = props.facts
  return [
    { atMin: setting.timeS.initial_set.mid / 60, label: 'holds a line', warm: false },
    { atMin: setting.timeS.final_set.low / 60, label: 'hard', warm: false },
    { atMin: demould.recommendedS / 60, label: `out ${at(demould.recommendedS)}`, warm: true },
  ]
})
const spoken = computed(
  () =>
    `Inside at most ${units.temp(marks.value.peakC)} at ${at(marks.value.peakS)}; out at ${at(props.facts.demould.recommendedS)}`,
)
const problem = computed(() => problemOf(props.facts, props.facts.inHand))
const conditions = computed(() =>
  conditionsOf(problem.value, props.facts.inHand, wetMassG(props.facts.plan, props.facts.mix)),
)
const pace = computed(() => props.facts.learnt?.pace ?? { meanLn: 0, sigmaLn: props.facts.sigmaLn })
/** Once a minute: it asks the models. */
const minute = computed(() => Math.floor(nowS.value / 60))
const act = computed(() => actNow(problem.value, pace.value, conditions.value, 60 * minute.value))
const asking = ref(false)
const reading = ref(false)
const contradicting = computed(() => props.facts.learnt?.contradicting ?? [])
</script>

<template>
  <section class="set" aria-label="How far it is">
    <div class="words">
      <slot />
      <p class="ready" data-testid="ready">
        <b class="figure">{{ chanceText }}</b>
        <span>
          ready now<template v-if="floorHolds && chance > 0.5"
            >; this mould wants it until {{ at(facts.demould.floorS) }}</template
          >
        </span>
      </p>
      <div
        class="meter"
        role="meter"
        aria-label="Ready now"
        :aria-valuenow="Math.round(100 * chance)"
        aria-valuemin="0"
        aria-valuemax="100"
      >
        <span class="fill" :style="{ width: `${100 * chance}%` }" />
        <span class="enough" :style="{ left: `${100 * READY_ENOUGH}%` }" />
      </div>
      <p v-if="burn" class="burn">{{ burn }}</p>
      <p v-if="latest" class="why">Out {{ LATEST_WORDS[latest.why] }}.</p>
      <p v-if="moved" class="why" data-testid="moved">{{ movedSentence(moved, startMs, nowMs) }}</p>
      <p v-else class="why">By bag, mix and temperatures; a look sharpens it.</p>
      <p v-if="coreC !== undefined && surfaceC !== undefined" class="why">
        Inside about <b>{{ units.temp(coreC) }}</b>, surface <b>{{ units.temp(surfaceC) }}</b><template
          v-if="marks.peakS > nowS"
          >; hottest {{ units.temp(marks.peakC) }} at {{ at(marks.peakS) }}</template
        ><template v-else>; hottest was at {{ at(marks.peakS) }}</template
        >.
      </p>
      <p v-for="fault in facts.learnt?.probeFaults ?? []" :key="fault" class="burn">
        {{ PROBE_FAULT_WORDS[fault] }}
      </p>
      <p v-for="condition in conditions" :key="condition" class="why">{{ CONDITION_WORDS[condition] }}</p>
      <p v-if="act" class="why" data-testid="act">
        <b>{{ ACT_WORDS[act.id] }}: out at {{ at(act.outS) }}</b> instead of
        {{ at(facts.demould.recommendedS) }}.
      </p>
      <p v-if="contradicting.length > 0" class="burn" data-testid="contradicting">
        {{ contradicting.map((c) => `${CUE_SEEN[c.cue]} at ${figure(c.atS / 60)} min`).join(', ') }}: does not
        fit the rest, and counts for little. Take it back if it was a slip.
      </p>
    </div>
    <div class="pictures">
      <SetChart
        v-if="curve"
        :curve="curve"
        :traces="traces"
        :start-ms="startMs"
        :now-ms="nowMs"
        :marks="uprights"
        :cues="cues"
        :spoken="spoken"
        :file-name="fileName(facts.plan.piece, 'setting')"
      >
        <button type="button" @click="reading = true">Logger’s file</button>
        <button type="button" @click="asking = true">What if</button>
      </SetChart>
      <div v-else class="waiting" role="status">Drawing its curve…</div>
      <DepthStrip
        v-if="curve"
        :curve="curve"
        :now-s="nowS"
        :hottest-at="marks.hottestAt"
        :piece="facts.plan"
      />
      <details>
        <summary>Something looks odd</summary>
        <dl>
          <template v-for="{ sign, means } in SIGN_WORDS" :key="sign">
            <dt>{{ sign }}</dt>
            <dd>{{ means }}</dd>
          </template>
        </dl>
      </details>
      <SetTable v-if="curve" :curve="curve" />
    </div>
    <WhatIf v-model="asking" :problem="problem" :pace="pace" :plan="facts.plan" />
    <LoggerFile v-model="reading" :pour-id="pourId" :facts="facts" :now-ms="nowMs" />
  </section>
</template>

<style scoped>
.set {
  display: grid;
  grid-template-columns: minmax(15rem, 2fr) 3fr;
  gap: var(--s2) var(--s5);
  align-items: start;
  min-width: 0;
}
.words,
.pictures {
  display: grid;
  gap: var(--s2);
  min-width: 0;
}
.waiting {
  min-height: 15rem;
}
@media (max-width: 56rem) {
  .set {
    grid-template-columns: 1fr;
  }
}
/* In the run's one column: what can hurt comes between the words and the pictures. */
@media (max-width: 43rem) {
  .set {
    display: contents;
  }
  .pictures {
    order: 2;
  }
}
.ready {
  display: flex;
  align-items: baseline;
  gap: var(--s2);
  font-size: 1.15rem;
  font-weight: 600;
}
.ready .figure {
  font-size: 2.1rem;
}
.meter {
  position: relative;
  height: 14px;
  border-radius: 7px;
  border: 2px solid currentColor;
  overflow: hidden;
}
.fill {
  position: absolute;
  inset: 0 auto 0 0;
  background: currentColor;
}
.enough {
  position: absolute;
  top: -2px;
  bottom: -2px;
  width: 3px;
  background: var(--hot);
}
.ready .figure {
  white-space: nowrap;
}
.words :deep(.big) {
  font-size: clamp(3.4rem, 6vw, 5.4rem);
}
.why {
  font-size: 1.02rem;
}
.burn {
  background: var(--hot-light);
  color: var(--ink);
  border-left: 6px solid var(--hot);
  border-radius: 0.5rem;
  padding: var(--s1) var(--s3);
  font-weight: 600;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0 0 var(--s2);
}
summary {
  min-height: 40px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 600;
}
</style>
