<script setup lang="ts">
/** What the worksheet comes to: what to weigh, and when it can be poured, taken out and is dry. Usage: <PlanResult :plan :evaluation :stale />  */
import { outOf } from './timeline'
import { computed } from 'vue'
import { givesMl, type PlanEvaluation, type PourPlan } from '#core/pour'
import { counted } from '~/parts/show/counted'
import { useUnits } from '~/parts/show/useUnits'
import { pourTimeText } from '~/parts/mix/pourTime'
import { durationRangeText, durationText } from '~/parts/show/time'

const props = defineProps<{
  plan: PourPlan
  evaluation: PlanEvaluation
  stale: boolean
}>()
const units = useUnits()
const outcome = computed(() => (props.evaluation.ok ? props.evaluation.outcome : undefined))
const promises = computed(() => {
  const of = outcome.value
  if (!of) return []
  const { strong, out } = outOf(of)
  return [
    { what: 'Time to pour', figure: of.pourWindowS ? pourTimeText(of.pourWindowS) : 'none', then: '' },
    {
      what: 'Out after',
      figure: durationText(out.mid),
      then: `strong enough ${durationRangeText(strong.low, strong.high)}`,
    },
    {
      what: 'Dry after',
      figure: durationText(of.dryS.mid),
      then: durationRangeText(of.dryS.low, of.dryS.high),
    },
  ]
})
</script>

<template>
  <div class="result" :class="{ stale }">
    <template v-if="outcome">
      <WeighOut :plan="plan" :outcome="outcome">
        <dl class="promises" aria-label="When">
          <div v-for="p in promises" :key="p.what">
            <dt>{{ p.what }}</dt>
            <dd class="figure">{{ p.figure }}</dd>
            <dd v-if="p.then" class="soft">{{ p.then }}</dd>
          </div>
        </dl>
        <p class="says">
          Makes <b>{{ units.volume(outcome.weighOut.slurryMl) }}</b> for a mould of
          <b>{{ units.volume(plan.mould.cavityMl) }}</b>, at about <b>{{ units.temp(outcome.mixTempC) }}</b>.
          <template v-if="plan.batching?.bowl && plan.learnt?.slurryYield"
            >{{ plan.batching.bowl.name }}, by its last {{ counted(plan.learnt.slurryYield.pours, 'pour') }},
            gives <b>{{ units.volume(givesMl(plan, outcome.weighOut.slurryMl)) }}</b> of it.</template
          ><template v-else-if="!plan.batching?.bowl"
            >{{ plan.addingWay === 'kneaded' ? 'A bag' : 'Bowl' }} of at least
            <b>{{ units.volume(Math.max(...outcome.batching.batches.map((b) => b.bowlMl))) }}</b>.</template
          >
          {{ ' ' }}
          <span v-if="outcome.leftover.fills.length > 0" data-testid="leftover">
            About {{ units.roughVolume(outcome.leftover.leftMl) }} left:
            <template v-for="(fill, i) in outcome.leftover.fills" :key="fill.mouldId"
              ><template v-if="i > 0">, then </template><b>{{ fill.name }}</b> ({{
                units.roughVolume(fill.fillMl)
              }})</template
            ><template v-if="outcome.leftover.restMl >= 1"
              >; {{ units.roughVolume(outcome.leftover.restMl) }} stays</template
            >.
          </span>
          <span v-else-if="outcome.leftover.leftMl >= 1" data-testid="leftover">
            About {{ units.roughVolume(outcome.leftover.leftMl) }} left in the bowl<template
              v-if="plan.spill?.length"
              >: too little for any spill mould</template
            >.
          </span>
        </p>
      </WeighOut>
    </template>
  </div>
</template>

<style scoped>
.result {
  display: grid;
  gap: var(--s3);
  align-content: start;
  min-width: 0;
}
.stale > section {
  opacity: 0.55;
}
.says {
  color: var(--on-ground-soft);
}
.says b {
  color: var(--on-ground);
  white-space: nowrap;
}
.promises {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, auto));
  justify-content: space-between;
  gap: var(--s3) var(--s4);
  margin: 0;
}
dt {
  font-weight: 600;
}
dt,
dd.soft {
  color: var(--on-ground-soft);
}
dd {
  margin: 0;
}
dd.figure {
  font-size: 1.5rem;
}
</style>
