<script setup lang="ts">
/** The worksheet's mixing and drying. Usage: <PlanConditions v-model="draft" :plan :problem="noteProblem" /> */
import { SUN_WORDS, WATER_WORDS } from './words'
import { computed } from 'vue'
import { DRY_TARGETS, EXPOSURES } from '#core/drying'
import { WATER_KINDS } from '#core/plaster'
import { ADDING_WAYS, SUNS, dryUsesOf, sketchMix, type PourPlan } from '#core/pour'
import { factorSentence } from '~/parts/learn/words'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { ADDING_WORDS } from '~/parts/words/mix'
import { wayChoice, type PlanDraft } from './planDraft'
import { timeToPour } from '~/parts/mix/pourTime'
import { DRY_TARGET_WORDS, EXPOSURE_WORDS } from '~/parts/words/pour'

const props = defineProps<{
  plan: PourPlan | undefined
  problem: (field: string, message: string) => void
}>()
const draft = defineModel<PlanDraft>({ required: true })
const units = useUnits()

const WAYS = ADDING_WAYS.map((value) => ({ value, label: ADDING_WORDS[value] }))
const WATER_FROM = [
  { value: 'one_tap', label: 'As it comes' },
  { value: 'two_taps', label: 'Mixed from two taps' },
] as const
/** Why cold buys time: the same mix five degrees colder and warmer. */
const STEP_C = 5
const timeAt = computed(() => {
  const { plan } = props
  if (!plan) return undefined
  const at = (change: number) => {
    const waterTempC = plan.waterTempC + change
    const window = sketchMix({ ...plan, waterTempC }, plan.consistency)?.pourWindowS
    return window && timeToPour(window)
  }
  const colder = plan.waterTempC - STEP_C >= 1 ? at(-STEP_C) : undefined
  const warmer = plan.waterTempC + STEP_C <= 45 ? at(STEP_C) : undefined
  return { now: at(0), colder, warmer }
})

const WATERS = WATER_KINDS.map((value) => ({ value, label: WATER_WORDS[value] }))
const SUN_CHOICES = (['none', ...SUNS] as const).map((value) => ({ value, label: SUN_WORDS[value] }))
const isGround = computed(() => props.plan?.mould.kind === 'ground')

const targetOptions = computed(() =>
  (props.plan ? dryUsesOf(props.plan) : DRY_TARGETS).map((value) => ({
    value,
    label: DRY_TARGET_WORDS[value],
  })),
)
const MANNERS = [
  { value: 'gentle', label: 'Gently by hand' },
  { value: 'hand', label: 'By hand' },
  { value: 'whisk', label: 'Whisk' },
  { value: 'drill', label: 'Drill paddle' },
] as const
const workshop = useWorkshop()
const placeOptions = computed(() => [
  { value: '', label: 'In the air it sets in' },
  ...workshop.places.map((p) => ({ value: p.id, label: p.name })),
])
const LIES = EXPOSURES.map((value) => ({ value, label: EXPOSURE_WORDS[value] }))
</script>

<template>
  <section class="slab" aria-labelledby="plan-mixing">
    <h2 id="plan-mixing">Mixing</h2>
    <LabelledPills
      :model-value="draft.addingWay"
      label="How the powder goes in"
      :options="WAYS"
      @update:model-value="Object.assign(draft, wayChoice($event))"
    />
    <LabelledPills v-model="draft.waterFrom" label="Where the water comes from" :options="WATER_FROM" />
    <LabelledPills v-model="draft.water" label="The water" :options="WATERS" />
    <div class="pair">
      <QuantityField
        v-if="draft.waterFrom === 'one_tap'"
        v-model="draft.waterTempC"
        kind="temp"
        label="Water"
        :min="1"
        :max="45"
        @problem="problem('water', $event)"
      />
      <template v-else>
        <QuantityField
          v-model="draft.targetTempC"
          kind="temp"
          label="The mix is to be"
          :min="2"
          :max="40"
          @problem="problem('target', $event)"
        />
        <QuantityField
          v-model="draft.coldTempC"
          kind="temp"
          label="Cold tap"
          :min="1"
          :max="45"
          @problem="problem('cold', $event)"
        />
        <QuantityField
          v-model="draft.hotTempC"
          kind="temp"
          label="Hot tap"
          :min="1"
          :max="95"
          @problem="problem('hot', $event)"
        />
      </template>
      <QuantityField
        v-model="draft.powderTempC"
        kind="temp"
        label="Powder"
        :min="-10"
        :max="50"
        @problem="problem('powder', $event)"
      />
      <QuantityField
        v-model="draft.mouldTempC"
        kind="temp"
        :label="isGround ? 'Ground' : 'Mould'"
        :min="-30"
        :max="60"
        @problem="problem('mouldTemp', $event)"
      />
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
    <LabelledPills v-model="draft.sun" label="While it sets it stands in" :options="SUN_CHOICES" />
    <p v-if="timeAt" class="soft small">
      Cold buys time: <b>{{ timeAt.now }}</b> with this water<template v-if="timeAt.colder"
        >, {{ timeAt.colder }} with water {{ units.tempStep(STEP_C) }} colder</template
      ><template v-if="timeAt.warmer"
        >, {{ timeAt.warmer }} with it {{ units.tempStep(STEP_C) }} warmer</template
      >.
    </p>
    <ChoicePills
      v-if="draft.addingWay !== 'kneaded'"
      v-model="draft.stirManner"
      label="How it is stirred"
      :options="MANNERS"
    />
  </section>
  <section class="slab" aria-labelledby="plan-drying">
    <h2 id="plan-drying">Drying</h2>
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
