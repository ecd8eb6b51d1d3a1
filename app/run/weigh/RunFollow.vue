<script setup lang="ts">
/**
 * Far more or less water is in the bowl than planned: what now? It stands where the target is, and is answered before any
 * plaster is weighed. Usage: <RunFollow :run />
 */
import { computed } from 'vue'
import { consistencyInBowl } from '#core/mix'
import { mixInputOf, type EventBody } from '#core/pour'
import { figure } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import type { StandingRun } from '../useRun'

const props = defineProps<{ run: StandingRun }>()
const units = useUnits()

const bowl = computed(() => {
  const { planned, inBowl } = props.run.facts.inHand
  return { waterG: inBowl.waterG ?? planned.waterG, powderG: planned.powderG }
})
const plannedG = computed(() => props.run.facts.inHand.planned.waterG)
const inBatch = computed(() => (props.run.facts.batch > 0 ? { batch: props.run.facts.batch } : {}))
const left = (leftMl: number) =>
  leftMl >= 0 ? `${units.roughVolume(leftMl)} over` : `${units.roughVolume(-leftMl)} short of the mould`

/** The ways there are, each with what it comes to. */
const ways = computed((): { what: string; comes: string; body: EventBody }[] => {
  const { plan, inHand } = props.run.facts
  const { planned } = inHand
  const missingG = planned.waterG - bowl.value.waterG
  const how = missingG > 0 ? 'water_in' : 'water_out'
  const share = bowl.value.waterG / planned.waterG
  const overMl = planned.slurryMl * (share - 1 / (1 + plan.sparePct / 100))
  const thinner = figure(consistencyInBowl(mixInputOf(plan), bowl.value))
  return [
    {
      what: `${missingG > 0 ? 'Add' : 'Sponge out'} ${units.mass(Math.abs(missingG))} of water`,
      comes: 'Then it is as planned.',
      body: { type: 'corrected', how, massG: Math.abs(missingG), ...inBatch.value },
    },
    {
      what: `Weigh ${units.mass(planned.powderG * share)} of plaster to it`,
      comes: `The same mix, ${left(overMl)}.`,
      body: { type: 'powder_follows', follows: true, ...inBatch.value },
    },
    {
      what: `Weigh ${units.mass(planned.powderG)} of plaster, as planned`,
      comes: `${missingG > 0 ? 'Stiffer' : 'Thinner'}: ${thinner} of water to 100.`,
      body: { type: 'powder_follows', follows: false, ...inBatch.value },
    },
  ]
})
</script>

<template>
  <section class="pool" aria-labelledby="follow-ask">
    <p id="follow-ask" class="ask">
      {{ units.mass(bowl.waterG) }} of water is in, not {{ units.mass(plannedG) }}. What now?
    </p>
    <div class="ways">
      <button v-for="way in ways" :key="way.what" type="button" @click="run.put(way.body)">
        <b>{{ way.what }}</b>
        <span>{{ way.comes }}</span>
      </button>
    </div>
  </section>
</template>

<style scoped>
.ask {
  font-family: var(--display);
  font-weight: 700;
  font-size: 1.3rem;
  line-height: 1.15;
}
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(14rem, 100%), 1fr));
  gap: var(--s2) var(--s3);
}
button {
  display: grid;
  align-content: center;
  min-height: 3.6rem;
  padding: var(--s2) var(--s4);
  border: 2px solid currentColor;
  border-radius: 1.4rem;
  background: transparent;
  color: inherit;
  text-align: left;
  line-height: 1.15;
  cursor: pointer;
}
</style>
