<script setup lang="ts">
/** The worksheet's mixing and drying. Usage: <PlanConditions v-model="draft" :problem="noteProblem" /> */
import { DRY_TARGETS } from '#core/drying'
import type { PlanDraft } from '~/utils/planDraft'
import { DRY_TARGET_WORDS } from '~/utils/words'

defineProps<{ problem: (field: string, message: string) => void }>()
const draft = defineModel<PlanDraft>({ required: true })

const targetOptions = DRY_TARGETS.map((value) => ({ value, label: DRY_TARGET_WORDS[value] }))
const MANNERS = [
  { value: 'gentle', label: 'Gently by hand' },
  { value: 'hand', label: 'By hand' },
  { value: 'whisk', label: 'Whisk' },
  { value: 'drill', label: 'Drill paddle' },
] as const
const EXPOSURES = [
  { value: 'both_faces', label: 'On a rack' },
  { value: 'one_face', label: 'Flat on a bench' },
] as const
</script>

<template>
  <section class="slab" aria-labelledby="plan-mixing">
    <h2 id="plan-mixing">Mixing</h2>
    <div class="pair">
      <QuantityField
        v-model="draft.waterTempC"
        kind="temp"
        label="Water"
        :min="1"
        :max="45"
        @problem="problem('water', $event)"
      />
      <QuantityField
        v-model="draft.powderTempC"
        kind="temp"
        label="Powder"
        :min="-10"
        :max="50"
        @problem="problem('powder', $event)"
      />
      <QuantityField
        v-model="draft.soakMin"
        kind="number"
        :decimals="1"
        label="Soak"
        suffix="min"
        :min="0"
        :max="30"
        @problem="problem('soak', $event)"
      />
      <QuantityField
        v-model="draft.stirMin"
        kind="number"
        :decimals="1"
        label="Stir"
        suffix="min"
        :min="0.25"
        :max="30"
        @problem="problem('stir', $event)"
      />
    </div>
    <ChoicePills v-model="draft.stirManner" label="How it is stirred" :options="MANNERS" />
  </section>
  <section class="slab" aria-labelledby="plan-drying">
    <h2 id="plan-drying">Drying</h2>
    <div class="pair">
      <LabelledSelect v-model="draft.dryTarget" label="Dry enough to" :options="targetOptions" />
      <QuantityField
        v-model="draft.roomTempC"
        kind="temp"
        label="Air"
        :min="-10"
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
    <ChoicePills v-model="draft.dryingExposure" label="Where it dries" :options="EXPOSURES" />
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s4);
}
.pair {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(9.5rem, 1fr));
}
</style>
