<script setup lang="ts">
/** What the mix will be: weight, strength, growth, pores, flow, cost, and whether it suits. Usage: <PlanBecomes :plan :outcome /> */
import { SUITS_WORDS, flowWords } from '../words'
import { figure } from '~/parts/show/figures'
import { Check, CircleAlert, CircleX } from '@lucide/vue'
import { computed } from 'vue'
import type { PlanOutcome, PourPlan } from '#core/pour'
import { ML_PER } from '#core/units'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { PURPOSE_WORDS } from '~/parts/words/mould'
import { durationRangeText, durationText } from '~/parts/show/time'
import { DRY_TARGET_WORDS } from '~/parts/words/pour'
import { PLASTER_CLASS_WORDS, provenanceWords } from '~/parts/words/plaster'

const props = defineProps<{ plan: PourPlan; outcome: PlanOutcome }>()
const units = useUnits()
const workshop = useWorkshop()

const mix = computed(() => props.outcome.mix)
const freeWaterG = computed(() => props.outcome.wetMassG - props.outcome.dryMassG)
const slurryG = computed(() => (props.outcome.weighOut.slurryMl * mix.value.slurryDensityKgM3) / 1000)
const origin = (what: 'setTime' | 'expansion' | 'strength' | 'consistency') => {
  const known = props.plan.plaster.origins?.[what]
  return known ? provenanceWords(known) : 'class default'
}
const { density, strength } = units
/** What slurry is counted in by the bucket. */
const bulk = computed(() =>
  units.system() === 'metric'
    ? { name: 'litre', ml: 1000 }
    : { name: 'quart', ml: units.system() === 'us' ? ML_PER.usQuart : ML_PER.impQuart },
)
const growth = computed(() => {
  const mm = props.outcome.growthMm
  if (mm === undefined) return `${figure(props.plan.plaster.properties.expansionPct, 2)} %`
  return units.shortLength(mm)
})
const TAP_NOTES = {
  working_time: 'not longer: it thickens',
  ceiling: 'longer brings no more: brush a first coat',
  floor: 'for pinhead bubbles from the deepest point; smaller ones stay',
}
const tapping = computed(() => props.outcome.flow.tapping)
const tapNote = computed(() =>
  tapping.value.tapS === 0 ? 'it thickens before it could help' : TAP_NOTES[tapping.value.heldBy ?? 'floor'],
)
const ICONS = { good: Check, fair: CircleAlert, poor: CircleX }
const money = (amount: number) => `${workshop.settings.currency} ${figure(amount, 2)}`
const betterPlaster = (classId: keyof typeof PLASTER_CLASS_WORDS) =>
  PLASTER_CLASS_WORDS[classId].replace(/ \(.*\)/, '').toLowerCase()
</script>

<template>
  <section class="becomes" aria-label="What it becomes">
    <ul v-if="outcome.suits.length > 0" class="suits">
      <li v-for="s in outcome.suits" :key="s.purpose" :class="s.grade">
        <component :is="ICONS[s.grade]" :size="22" aria-hidden="true" />
        <span
          ><b>{{ PURPOSE_WORDS[s.purpose] }}.</b> {{ SUITS_WORDS[s.code] }}
          <template v-if="s.better">
            {{ betterPlaster(s.better.classId).replace(/^./, (c) => c.toUpperCase()) }} at
            {{ s.better.consistency }} would do it better.
          </template>
        </span>
      </li>
    </ul>
    <div class="tiles">
      <FigureTile
        :figure="units.mass(outcome.dryMassG)"
        what="Dry weight"
        origin="Computed from the volume and the mix; densities are good to about 3 %, the volume as far as it is known."
      >
        {{ units.mass(outcome.dryMassRangeG.low) }} to {{ units.mass(outcome.dryMassRangeG.high) }};
        {{ units.mass(outcome.wetMassG) }} when it comes out, {{ units.mass(freeWaterG) }} of it water to
        leave
      </FigureTile>
      <FigureTile
        :figure="strength(outcome.strength.dry.mid)"
        what="Strength, dry"
        :origin="`From its pores, by a curve through published class values, ±25 %; for this plaster: ${origin('strength')}. Cubes in a press: hand-cast pieces are lower.`"
      >
        {{ strength(outcome.strength.dry.low) }} to {{ strength(outcome.strength.dry.high) }};
        {{ strength(outcome.strength.wetOneHour.mid) }} an hour after setting
      </FigureTile>
      <FigureTile
        :figure="durationText(outcome.dryS.mid)"
        :what="`Dry enough to ${DRY_TARGET_WORDS[plan.dryTarget]}`"
        origin="A model of drying in two periods, before any weighing: weigh the piece twice and it learns."
      >
        {{ durationRangeText(outcome.dryS.low, outcome.dryS.high) }}, in the air you gave
      </FigureTile>
      <FigureTile
        :figure="growth"
        what="Grows as it sets"
        :origin="`Setting expansion: ${origin('expansion')}. Free to grow; a rigid mould holds some of it.`"
      >
        <template v-if="outcome.growthMm !== undefined"
          >on its longest side ({{ figure(plan.plaster.properties.expansionPct, 2) }} %)</template
        ><template v-else>of every length</template>
      </FigureTile>
      <FigureTile
        :figure="`${figure(100 * mix.porosity)} %`"
        what="Pores, when dry"
        origin="Computed: the room that water and air leave. About half and more draws water out of clay; under two fifths hardly."
      >
        {{ figure(100 * outcome.porosity.low) }}–{{ figure(100 * outcome.porosity.high) }} % as the ratio is
        met; {{ density(mix.dryDensityKgM3) }} dry, {{ density(mix.wetSetDensityKgM3) }} wet
      </FigureTile>
      <FigureTile
        :figure="tapping.tapS === 0 ? 'None' : durationText(tapping.tapS)"
        what="Tapping worth doing"
        origin="A pinhead bubble rising through the vibrated slurry (Stokes); how it runs is an estimate, times or divided by 3."
      >
        It runs {{ flowWords(outcome.flow.viscosityPaS) }}; {{ tapNote }}
      </FigureTile>
      <FigureTile
        :figure="units.mass(slurryG)"
        what="Slurry"
        origin="Computed from the masses and the densities of grain and water, with 1 % of air stirred in."
      >
        {{ units.volume(outcome.weighOut.slurryMl) }} at {{ density(mix.slurryDensityKgM3) }}
      </FigureTile>
      <FigureTile
        v-if="outcome.cost"
        :figure="money(outcome.cost.pour)"
        what="Plaster, this pour"
        :origin="`What ${plan.plaster.bag!.name} cost, by weight; nothing else is counted.`"
      >
        {{ money(outcome.cost.perCast) }} a cast, {{ money((outcome.cost.perLitre * bulk.ml) / 1000) }} a
        {{ bulk.name }} of slurry
      </FigureTile>
    </div>
  </section>
</template>

<style scoped>
.becomes {
  display: grid;
  gap: var(--s3);
}
.tiles {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(9.4rem, 1fr));
}
.suits {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
.suits li {
  display: flex;
  gap: var(--s3);
  align-items: flex-start;
  background: var(--plaster);
  border-left: 6px solid var(--wet);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
}
.suits svg {
  flex: none;
}
.suits .fair,
.suits .poor {
  background: var(--warm-light);
  border-color: var(--warm);
}
</style>
