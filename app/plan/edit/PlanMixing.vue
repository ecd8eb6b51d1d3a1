<script setup lang="ts">
/** How the powder goes in, soak and stirring. Usage: <PlanMixing v-model="draft" :problem="noteProblem" /> */
import { ADDING_WAYS } from '#core/pour'
import { ADDING_WORDS } from '~/parts/words/mix'
import { wayChoice } from '../draft/choices'
import { type PlanDraft } from '../draft/planDraft'

defineProps<{ problem: (field: string, message: string) => void }>()
const draft = defineModel<PlanDraft>({ required: true })

const WAYS = ADDING_WAYS.map((value) => ({ value, label: ADDING_WORDS[value] }))
const MANNERS = [
  { value: 'gentle', label: 'Gently by hand' },
  { value: 'hand', label: 'By hand' },
  { value: 'whisk', label: 'Whisk' },
  { value: 'drill', label: 'Drill paddle' },
] as const
</script>

<template>
  <section class="slab" aria-label="Mixing">
    <LabelledPills
      :model-value="draft.addingWay"
      label="How the powder goes in"
      :options="WAYS"
      @update:model-value="Object.assign(draft, wayChoice($event))"
    />
    <div class="pair">
      <QuantityField
        v-if="draft.addingWay !== 'kneaded'"
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
        :label="draft.addingWay === 'kneaded' ? 'Knead' : 'Stir'"
        suffix="min"
        :min="0.25"
        :max="30"
        @problem="problem('stir', $event)"
      />
    </div>
    <ChoicePills
      v-if="draft.addingWay !== 'kneaded'"
      v-model="draft.stirManner"
      label="How it is stirred"
      :options="MANNERS"
    />
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s4);
}
</style>
