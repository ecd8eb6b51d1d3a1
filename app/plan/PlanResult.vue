<script setup lang="ts">
/** What the worksheet comes to: what to weigh, the timeline, what it becomes. Usage: <PlanResult :plan :evaluation :stale :last-consistency /> */
import { SIFT_STAGE_WORDS } from './words'
import { computed, ref } from 'vue'
import { burnHazard, warmEndC } from '#core/heat'
import { plasterClass } from '#core/plaster'
import {
  actBefore,
  conditionsOf,
  givesMl,
  soakTimeS,
  type PlanEvaluation,
  type PourPlan,
  type RemedyChange,
} from '#core/pour'
import { counted } from '~/parts/show/counted'
import { useUnits } from '~/parts/show/useUnits'
import { cautionsOfPlan } from '~/parts/show/cautions'
import { pourTimeAtBest, timeToPour } from '~/parts/mix/pourTime'
import { durationText } from '~/parts/show/time'
import { ACT_WORDS, BURN_WORDS, CONDITION_WORDS } from '~/parts/words/demould'
import { provenanceWords } from '~/parts/words/plaster'
import { issueWords } from '~/parts/words/mix'

const props = defineProps<{
  plan: PourPlan
  evaluation: PlanEvaluation
  stale: boolean
  lastConsistency: number | undefined
}>()
const emit = defineEmits<{ take: [change: RemedyChange] }>()
const units = useUnits()
const outcome = computed(() => (props.evaluation.ok ? props.evaluation.outcome : undefined))
/** Whose ratio it is: the plaster's own, or what the caster made of it. */
const ratioFrom = computed(() => {
  const { consistency, plaster } = props.plan
  const own = Math.abs(consistency / plaster.properties.useConsistency - 1) < 0.005
  return own && plaster.origins ? provenanceWords(plaster.origins.consistency) : 'as you set it'
})
const window = computed(() => outcome.value?.pourWindowS)
const asking = ref(false)
const burn = computed(() => {
  const of = outcome.value
  if (!of) return undefined
  const hazard = burnHazard(warmEndC(of.heat.surfacePeakC, of.problem.around.airTempC))
  return hazard === 'none' ? undefined : hazard
})
const conditions = computed(() => {
  const of = outcome.value
  return of ? conditionsOf(of.problem, { ...of, marks: of.heat }, of.wetMassG) : []
})
const act = computed(() => outcome.value && actBefore(outcome.value.problem, props.plan, conditions.value))
</script>

<template>
  <div class="result" :class="{ stale }">
    <p v-if="stale" class="warn" role="status">
      Something in the plan cannot be read yet. These are the last figures that could.
    </p>
    <p
      v-for="issue in evaluation.issues"
      :key="issue.code"
      class="warn"
      :class="issue.severity"
      role="status"
    >
      {{ issueWords(issue, units) }}
    </p>
    <PlanRemedies v-if="outcome && !stale" :plan="plan" :outcome="outcome" @take="emit('take', $event)" />
    <template v-if="outcome">
      <WeighOut :plan="plan" :outcome="outcome">
        <p class="says">
          Makes <b>{{ units.volume(outcome.weighOut.slurryMl) }}</b> of slurry for a mould of
          <b>{{ units.volume(plan.mould.cavityMl) }}</b>, at about <b>{{ units.temp(outcome.mixTempC) }}</b>.
          <template v-if="plan.batching?.bowl"
            >In {{ plan.batching.bowl.name
            }}<template v-if="plan.learnt?.slurryYield"
              >, which by its last {{ counted(plan.learnt.slurryYield.pours, 'pour') }} gives
              <b>{{ units.volume(givesMl(plan, outcome.weighOut.slurryMl)) }}</b> of it</template
            >.</template
          ><template v-else
            >{{ plan.addingWay === 'kneaded' ? 'A bag' : 'Bowl' }} of at least
            <b>{{ units.volume(Math.max(...outcome.batching.batches.map((b) => b.bowlMl))) }}</b>.</template
          >
        </p>
        <p v-if="plan.siftStage" class="says">
          By eye: the water, then sift to “{{ SIFT_STAGE_WORDS[plan.siftStage].name.toLowerCase() }}”; about
          this much plaster goes in.
        </p>
        <p
          v-if="plan.mould.plusMinusMl && plan.mould.plusMinusMl > outcome.leftover.leftMl"
          class="says short-of"
        >
          The volume is known to ± {{ units.roughVolume(plan.mould.plusMinusMl) }}, the spare is
          {{ units.roughVolume(outcome.leftover.leftMl) }}: it may run short. Measure better, or take more
          spare.
        </p>
        <p v-if="outcome.leftover.fills.length > 0" class="says" data-testid="leftover">
          About {{ units.roughVolume(outcome.leftover.leftMl) }} is left:
          <template v-for="(fill, i) in outcome.leftover.fills" :key="fill.mouldId"
            ><template v-if="i > 0">, then </template><b>{{ fill.name }}</b> ({{
              units.roughVolume(fill.fillMl)
            }})</template
          ><template v-if="outcome.leftover.restMl >= 1"
            >; {{ units.roughVolume(outcome.leftover.restMl) }} stays in the bowl</template
          >.
        </p>
        <p v-else-if="outcome.leftover.leftMl >= 1" class="says" data-testid="leftover">
          About {{ units.roughVolume(outcome.leftover.leftMl) }} is left in the bowl<template
            v-if="plan.spill?.length"
            >: too little for any spill mould</template
          >.
        </p>
        <details class="says">
          <summary>where from</summary>
          <p>
            The mould’s volume: {{ provenanceWords(plan.mould.volumeProvenance) }}. The ratio:
            {{ ratioFrom }}. Grain densities:
            {{
              provenanceWords(plasterClass(plan.plaster.properties.classId).particleDensityKgM3.provenance)
            }}. Then the sum of the volumes of grain, water and 1 % of air, rounded to what the scale shows.
          </p>
        </details>
      </WeighOut>
      <section class="slab" aria-label="Timeline">
        <div class="heading">
          <h2>When it sets{{ outcome.batching.batches.length > 1 ? ', each bowl' : '' }}</h2>
          <p v-if="window">
            <b>{{ timeToPour(window).replace(/^h/, 'H') }}</b><template v-if="pourTimeAtBest(window)"
              >, {{ pourTimeAtBest(window) }}</template
            >
          </p>
        </div>
        <SettingTimeline :outcome="outcome" :soak-s="soakTimeS(plan)" :stir-s="plan.stirS" />
        <p>
          Inside it gets to about <b>{{ units.temp(outcome.heat.peakC) }}</b>, its surface to
          <b>{{ units.temp(outcome.heat.surfacePeakC) }}</b><template v-if="burn"
            >: {{ BURN_WORDS[burn].toLowerCase() }}</template
          ><template v-if="outcome.heat.coolS !== undefined"
            >; cool again after {{ durationText(outcome.heat.coolS) }}</template
          >. <button type="button" class="what-if" @click="asking = true">What if…</button>
        </p>
        <p v-for="condition in conditions" :key="condition">{{ CONDITION_WORDS[condition] }}</p>
        <p v-if="act">
          <b>{{ ACT_WORDS[act.id] }}</b>: out after {{ durationText(act.outS) }} instead of
          {{ durationText(outcome.demould.recommendedS) }}.
        </p>
        <WhatIf
          v-model="asking"
          :problem="outcome.problem"
          :pace="{ meanLn: 0, sigmaLn: outcome.setting.sigmaLn }"
          :plan="plan"
        />
        <details>
          <summary>How sure is this?</summary>
          <p>
            <template v-if="plan.plaster.origins?.setTime.kind === 'spoon_tests'">
              Ranges hold four times in five, from the spoon tests of this bag.
            </template>
            <template v-else>
              Ranges hold four times in five for a bag not yet tried here: the class default is good to about
              ±30 %.
            </template>
            The mix’s own heat, mould, ground and air are worked in.
            <template v-if="!outcome.heat.even"
              >Its form is uneven or unknown, so the range is wider.
            </template>
            So feel before you take it out: warm, then cooling, and hard.
            <template v-if="outcome.demould.heldByFloor">
              This kind of mould keeps it longer than the plaster needs (common practice).
            </template>
          </p>
        </details>
      </section>
      <PlanBecomes :plan="plan" :outcome="outcome" />
      <details class="slab">
        <summary><h2>Schools side by side</h2></summary>
        <CompareSchools :plan="plan" :last-consistency="lastConsistency" />
      </details>
      <CautionNote v-for="caution in cautionsOfPlan(plan)" :id="caution" :key="caution" />
    </template>
  </div>
</template>

<style scoped>
.what-if {
  min-height: 44px;
  padding: 0 var(--s3);
  border: 2px solid var(--line);
  border-radius: 999px;
  background: transparent;
  font-weight: 600;
  cursor: pointer;
}
.result {
  display: grid;
  gap: var(--s3);
  align-content: start;
  min-width: 0;
}
.stale > section {
  opacity: 0.55;
}
.warn {
  background: var(--warm-light);
  border-left: 6px solid var(--warm);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
  font-weight: 600;
}
.warn.error {
  background: var(--hot-light);
  border-color: var(--hot);
}
.says {
  color: var(--on-ground-soft);
}
.says b {
  color: var(--on-ground);
  white-space: nowrap;
}
.short-of {
  border-left: 6px solid var(--warm-light);
  padding-left: var(--s3);
  font-weight: 600;
}
.heading {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--s3);
  flex-wrap: wrap;
}
details {
  margin-top: var(--s2);
}
section details {
  color: var(--ink-soft);
}
summary {
  cursor: pointer;
  font-weight: 600;
}
summary h2 {
  display: inline;
}
</style>
