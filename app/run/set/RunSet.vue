<script setup lang="ts">
/**
 * While it sets: its clock (slotted in), how sure it is that it may come out, how strong it is, and in the middle the
 * piece cut through and its curve. What burns is said by SetBurn, why by SetReasons.
 * Usage: <RunSet :facts :pour-id :curve :learning :now-ms><RunClock … /></RunSet>
 */
import { computed, defineAsyncComponent, ref } from 'vue'
import { READY_ENOUGH, readyChance, type SetCurve } from '#core/forecast'
import { problemOf, type PourOutlook } from '#core/pour'
import { figure } from '~/parts/show/figures'
import { fileName } from '~/parts/show/saveFile'
import { useUnits } from '~/parts/show/useUnits'
import { CUE_SEEN } from '~/parts/words/demould'
import { useForecasts } from '~/stores/forecasts'
import { useSettingTime } from './useSettingTime'
import SetSection from './SetSection.vue'

const SetChart = defineAsyncComponent(() => import('~/parts/set/SetChart.vue'))

const props = defineProps<{
  facts: PourOutlook
  pourId: string
  curve: SetCurve | undefined
  /** What was seen of it is still being worked out: no chance is said yet. */
  learning: boolean
  nowMs: number
}>()
const units = useUnits()
const forecasts = useForecasts()

const { startMs, nowS, at } = useSettingTime(props)

const chance = computed(() => readyChance(props.facts, props.facts.sigmaLn, nowS.value))
const chanceText = computed(() =>
  chance.value > 0.99 ? 'over 99 %' : chance.value < 0.01 ? 'under 1 %' : `${figure(100 * chance.value)} %`,
)
const floorHolds = computed(() => nowS.value < props.facts.demould.floorS)
const lookHolds = computed(() => nowS.value < props.facts.demould.looksHoldS)
const marks = computed(() => props.facts.inHand.marks)
const traces = computed(() => forecasts.tracesOf(props.pourId, props.facts))
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
  const { setting, demould, learnt } = props.facts
  const farOff = learnt?.farOff
  return [
    { atMin: setting.timeS.initial_set.mid / 60, label: 'holds a line', warm: false },
    { atMin: setting.timeS.final_set.low / 60, label: 'hard', warm: false },
    { atMin: demould.recommendedS / 60, label: `out ${at(demould.recommendedS)}`, warm: true },
    // Both, until somebody has said what was wrong.
    ...(farOff ? [{ atMin: farOff.priorOutS / 60, label: 'out by bag and mix', warm: false }] : []),
  ]
})
const spoken = computed(
  () =>
    `Inside at most ${units.temp(marks.value.peakC)} at ${at(marks.value.peakS)}; out at ${at(props.facts.demould.recommendedS)}`,
)
const problem = computed(() => problemOf(props.facts, props.facts.inHand))
const pace = computed(() => props.facts.learnt?.pace ?? { meanLn: 0, sigmaLn: props.facts.sigmaLn })
const asking = ref(false)
const reading = ref(false)
const tabling = ref(false)
const contradicting = computed(() => props.facts.learnt?.contradicting ?? [])
</script>

<template>
  <section class="set" aria-label="How far it is">
    <div class="words">
      <slot />
      <p v-if="!learning" class="ready" data-testid="ready">
        <b class="figure">{{ chanceText }}</b> sure that it is hard enough now
      </p>
      <div
        v-if="!learning"
        class="meter"
        role="meter"
        aria-label="Sure that it is hard enough now"
        :aria-valuenow="Math.round(100 * chance)"
        aria-valuemin="0"
        aria-valuemax="100"
      >
        <span class="fill" :style="{ width: `${100 * chance}%` }" />
        <span class="enough" :style="{ left: `${100 * READY_ENOUGH}%` }" />
      </div>
      <SetStrength v-if="curve && !learning" :facts :curve :now-s="nowS" :at />
      <p v-if="lookHolds" data-testid="held">
        It was not so far when you looked: not out before {{ at(facts.demould.looksHoldS) }}.
      </p>
      <p v-if="floorHolds && chance > 0.5">
        Leave it in until {{ at(facts.demould.floorS) }} all the same: this kind of mould wants it.
      </p>
      <p v-if="contradicting.length > 0" class="burn" data-testid="contradicting">
        {{ contradicting.map((c) => `${CUE_SEEN[c.cue]} at ${figure(c.atS / 60)} min`).join(', ') }}: does not
        fit the rest, and counts for little. Take it back if it was a slip.
      </p>
    </div>
    <div class="pictures later">
      <SetSection
        v-if="curve"
        :curve="curve"
        :now-s="nowS"
        :hottest-at="marks.hottestAt"
        :plan="facts.plan"
      />
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
        <button type="button" @click="asking = true">What if</button>
        <button type="button" @click="reading = true">Logger</button>
        <button type="button" @click="tabling = true">Table</button>
      </SetChart>
      <div v-else class="waiting" role="status">Drawing its curve…</div>
    </div>
    <WhatIf v-model="asking" :problem="problem" :pace="pace" :plan="facts.plan" />
    <LoggerFile v-model="reading" :pour-id="pourId" :facts="facts" :now-ms="nowMs" />
    <SheetDialog v-model="tabling" title="Its curve as a table">
      <SetTable v-if="curve" :curve="curve" :green="facts.inHand.green" :now-s="nowS" :at />
    </SheetDialog>
  </section>
</template>

<style scoped>
.set {
  display: grid;
  grid-template-columns: minmax(13rem, 15.4rem) minmax(0, 1fr);
  gap: var(--s2) var(--s5);
  align-items: start;
  min-width: 0;
  /* In a low window, or under notices, the curve gives way before the answers below it do. */
  --chart-height: clamp(11rem, calc(100dvh - var(--notices, 0px) - 33.6rem), 14.5rem);
}
.words,
.pictures {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s2);
  min-width: 0;
}
.waiting {
  min-height: 15rem;
}
.ready {
  font-size: 1.1rem;
  font-weight: 600;
  line-height: 1.15;
}
.ready .figure {
  font-size: 1.9rem;
  white-space: nowrap;
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
.words :deep(.big) {
  font-size: clamp(3.2rem, 5vw, 4.6rem);
}
.burn {
  background: var(--hot-light);
  color: var(--ink);
  border-left: 6px solid var(--hot);
  border-radius: 0.5rem;
  padding: var(--s1) var(--s3);
  font-weight: 600;
}
@media (forced-colors: active) {
  .fill,
  .enough {
    background: CanvasText;
    forced-color-adjust: none;
  }
}
@media (max-width: 56rem) {
  .set {
    grid-template-columns: minmax(0, 1fr);
    --chart-height: 14.5rem;
  }
}
/* In the run's one column: what can hurt and the way on come before the reasons and the pictures. */
@media (max-width: 43rem) {
  .set,
  .words {
    display: contents;
  }
}
</style>
