<script setup lang="ts">
/** Water, powder and mould, how warm each is, and the sun. Usage: <PlanWater v-model="draft" :plan :problem="noteProblem" /> */
import { SUN_WORDS, WATER_WORDS } from '../words'
import { computed } from 'vue'
import { WATER_KINDS } from '#core/plaster'
import { SUNS, sketchMix, type PourPlan } from '#core/pour'
import { timeToPour } from '~/parts/mix/pourTime'
import { useUnits } from '~/parts/show/useUnits'
import type { PlanDraft } from '../draft/planDraft'

const props = defineProps<{
  plan: PourPlan | undefined
  problem: (field: string, message: string) => void
}>()
const draft = defineModel<PlanDraft>({ required: true })
const units = useUnits()

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
</script>

<template>
  <section class="slab" aria-label="Water and how warm it is">
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
    </div>
    <LabelledPills v-model="draft.sun" label="While it sets it stands in" :options="SUN_CHOICES" />
    <p v-if="timeAt" class="soft small">
      Cold buys time: <b>{{ timeAt.now }}</b> with this water<template v-if="timeAt.colder"
        >, {{ timeAt.colder }} with water {{ units.tempStep(STEP_C) }} colder</template
      ><template v-if="timeAt.warmer"
        >, {{ timeAt.warmer }} with it {{ units.tempStep(STEP_C) }} warmer</template
      >.
    </p>
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s4);
}
</style>
