<script setup lang="ts">
/** When it thickens, sets and comes out, how warm it gets, and how sure that is. Usage: <PlanTimes :plan :outcome /> */
import { computed, ref } from 'vue'
import { burnHazard, warmEndC } from '#core/heat'
import { plasterClass } from '#core/plaster'
import { actBefore, conditionsOf, soakTimeS, type PlanOutcome, type PourPlan } from '#core/pour'
import { pourTimeAtBest, sinceFirstPowderS, timeToPour } from '~/parts/mix/pourTime'
import { durationText } from '~/parts/show/time'
import { useKeptHere } from '~/stores/kept'
import { useUnits } from '~/parts/show/useUnits'
import { provenanceWords } from '~/parts/words/plaster'
import { outOf } from './timeline'
import { ACT_WORDS, BURN_WORDS, CONDITION_WORDS } from '~/parts/words/demould'

const props = defineProps<{ plan: PourPlan; outcome: PlanOutcome }>()
const units = useUnits()
const window = computed(() => props.outcome.pourWindowS)
const asking = ref(false)
const byMin = useKeptHere('nine-ripples.out-by', 0)
const presses = computed(() => {
  const has = (material: string) => props.plan.mould.members?.some((m) => m.facts.material === material)
  return has('sand_soil') ? 'the tide, the rain' : has('alginate') ? 'the gel shrinks' : undefined
})
const pressed = ref(false)
const isPressed = computed(() => pressed.value || byMin.value > 0 || presses.value !== undefined)
const burn = computed(() => {
  const { heat, problem } = props.outcome
  const hazard = burnHazard(warmEndC(heat.surfacePeakC, problem.around.airTempC))
  return hazard === 'none' ? undefined : hazard
})
const conditions = computed(() => {
  const of = props.outcome
  return conditionsOf(of.problem, { ...of, marks: of.heat }, of.wetMassG)
})
const act = computed(() => actBefore(props.outcome.problem, props.plan, conditions.value))
/** Whose ratio it is: the plaster's own, or what the caster made of it. */
const ratioFrom = computed(() => {
  const { consistency, plaster } = props.plan
  const own = Math.abs(consistency / plaster.properties.useConsistency - 1) < 0.005
  return own && plaster.origins ? provenanceWords(plaster.origins.consistency) : 'as you set it'
})
</script>

<template>
  <section class="slab" aria-label="Timeline">
    <div class="heading">
      <p v-if="window">
        <template v-if="outcome.batching.batches.length > 1">Each bowl: </template
        ><b>{{
          outcome.batching.batches.length > 1 ? timeToPour(window) : timeToPour(window).replace(/^h/, 'H')
        }}</b
        ><template v-if="pourTimeAtBest(window)">, {{ pourTimeAtBest(window) }}</template>
      </p>
      <span class="asks">
        <button
          v-if="!isPressed"
          type="button"
          class="what-if"
          aria-label="It must be out by…"
          @click="pressed = true"
        >
          Out by…
        </button>
        <button type="button" class="what-if" @click="asking = true">What if…</button>
      </span>
    </div>
    <SettingTimeline :outcome="outcome" :soak-s="soakTimeS(plan)" :stir-s="plan.stirS" />
    <p>
      Inside it gets to about <b>{{ units.temp(outcome.heat.peakC) }}</b>, its surface to
      <b>{{ units.temp(outcome.heat.surfacePeakC) }}</b
      ><template v-if="burn">: {{ BURN_WORDS[burn].toLowerCase() }}</template
      ><template v-if="outcome.heat.coolS !== undefined"
        >; cool again after {{ durationText(outcome.heat.coolS) }}</template
      >.
      <span v-for="condition in conditions" :key="condition">{{ CONDITION_WORDS[condition] }} </span>
    </p>
    <p v-if="act">
      <b>{{ ACT_WORDS[act.id] }}</b>: out after
      {{ durationText(sinceFirstPowderS(outcome, act.outS)) }} instead of
      {{ durationText(outOf(outcome).out.mid) }}.
    </p>
    <PlanOutBy v-if="isPressed" v-model="byMin" :presses="presses" :outcome="outcome" />
    <WhatIf
      v-model="asking"
      :problem="outcome.problem"
      :pace="{ meanLn: 0, sigmaLn: outcome.setting.sigmaLn }"
      :plan="plan"
    />
    <details>
      <summary>How sure this is, and where it is from</summary>
      <p>
        <template v-if="plan.plaster.origins?.setTime.kind === 'spoon_tests'">
          Ranges hold four times in five, from the spoon tests of this bag.
        </template>
        <template v-else>
          Ranges hold four times in five for a bag not yet tried here: the class default is good to about ±30
          %.
        </template>
        The mix’s own heat, mould, ground and air are worked in.
        <template v-if="!outcome.heat.even">Its form is uneven or unknown, so the range is wider. </template>
        So feel before you take it out: warm, then cooling, and hard.
        <template v-if="outcome.demould.heldByFloor">
          This kind of mould keeps it longer than the plaster needs (common practice).
        </template>
      </p>
      <p>
        The mould’s volume: {{ provenanceWords(plan.mould.volumeProvenance) }}. The ratio: {{ ratioFrom }}.
        Grain densities:
        {{ provenanceWords(plasterClass(plan.plaster.properties.classId).particleDensityKgM3.provenance) }}.
        Then the sum of the volumes of grain, water and 1 % of air, rounded to what the scale shows.
      </p>
    </details>
  </section>
</template>

<style scoped>
.what-if {
  min-height: 44px;
  padding: 0 var(--s2);
  border: 2px solid var(--line);
  border-radius: 999px;
  background: transparent;
  font-weight: 600;
  cursor: pointer;
}
/* Beside a line of words, and no taller row for it. */
.asks {
  display: flex;
  gap: var(--s2);
  margin-block: -0.7rem;
}
.heading {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--s3);
  flex-wrap: wrap;
}
details {
  color: var(--ink-soft);
}
details {
  margin-block: -0.5rem;
}
summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
  font-weight: 600;
}
</style>
