<script setup lang="ts">
/** Where it dries, and for what. Usage: <PlanDrying v-model="draft" :plan :problem="noteProblem" /> */
import { computed } from 'vue'
import { DRY_TARGETS, EXPOSURES } from '#core/drying'
import { dryUsesOf, type PourPlan } from '#core/pour'
import { factorSentence } from '~/parts/learn/words'
import { DRY_TARGET_WORDS, EXPOSURE_WORDS } from '~/parts/words/pour'
import { useWorkshop } from '~/stores/workshop'
import type { PlanDraft } from '../draft/planDraft'

const props = defineProps<{
  plan: PourPlan | undefined
  problem: (field: string, message: string) => void
}>()
const draft = defineModel<PlanDraft>({ required: true })
const targetOptions = computed(() =>
  (props.plan ? dryUsesOf(props.plan) : DRY_TARGETS).map((value) => ({
    value,
    label: DRY_TARGET_WORDS[value],
  })),
)
const workshop = useWorkshop()
const placeOptions = computed(() => [
  { value: '', label: 'In the air it sets in' },
  ...workshop.places.map((p) => ({ value: p.id, label: p.name })),
])
const LIES = EXPOSURES.map((value) => ({ value, label: EXPOSURE_WORDS[value] }))
</script>

<template>
  <section class="slab" aria-label="Drying">
    <div class="pair">
      <LabelledSelect v-model="draft.dryTarget" label="Dry enough to" :options="targetOptions" />
      <QuantityField
        v-model="draft.roomTempC"
        kind="temp"
        label="Air"
        :min="-30"
        :max="60"
        @problem="problem('room', $event)"
      />
      <QuantityField
        v-model="draft.roomRhPct"
        kind="number"
        label="Humidity"
        suffix="%"
        :min="1"
        :max="96"
        @problem="problem('rh', $event)"
      />
      <QuantityField
        v-model="draft.airSpeedMS"
        kind="number"
        :decimals="1"
        label="Air speed"
        suffix="m/s (fan 1.5)"
        :min="0.1"
        :max="10"
        @problem="problem('air', $event)"
      />
    </div>
    <LabelledSelect
      v-if="workshop.places.length > 0"
      v-model="draft.dryingPlaceId"
      label="Where it dries"
      :options="placeOptions"
    />
    <ChoicePills v-model="draft.dryingExposure" label="How it lies" :options="LIES" />
    <p v-if="plan?.dryingPlace?.pace" class="soft" data-testid="place-learnt">
      {{ plan.dryingPlace.name }}
      {{ factorSentence('drying', Math.exp(plan.dryingPlace.pace.meanLn), plan.dryingPlace.pace.pours) }}.
    </p>
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s4);
}
</style>
