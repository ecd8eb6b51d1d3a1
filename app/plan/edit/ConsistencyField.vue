<script setup lang="ts">
/**
 * One number, consistency, met by any school: weighed, by scoop, by eye, or read off a label. Changing the school keeps
 * the mix. Usage: <ConsistencyField v-model="draft" :plan :water-ml @problem />
 */
import { figure } from '~/parts/show/figures'
import Slider from 'primevue/slider'
import { computed, ref, useId, watch } from 'vue'
import { LEAST_SCOOP_ML, MOST_SCOOP_ML } from '#core/bounds'
import {
  consistencyFromPartsByWeight,
  nearestStage,
  powderPartsByWeight,
  ratioRange,
  waterFractionOfMould,
  type RatioMethod,
  type Scoop,
} from '#core/mix'
import { PACKINGS, type LabelReading } from '#core/plaster'
import { consistencySpan, type PourPlan } from '#core/pour'
import type { PlanDraft } from '../draft/planDraft'
import {
  changeScoop,
  consistencyOfScoops,
  scoopBoundsG,
  scoopParts,
  scoopWeighsG,
  weighedScoop,
} from '~/parts/mix/scoop'
import { PACKING_WORDS } from '~/parts/words/plaster'

const props = defineProps<{
  plan: PourPlan
  /** Water of the whole job, ml: what one starts from. */
  waterMl: number | undefined
}>()
const draft = defineModel<PlanDraft>({ required: true })
const emit = defineEmits<{ problem: [field: string, message: string] }>()
const id = useId()

const properties = computed(() => props.plan.plaster.properties)
const classId = computed(() => properties.value.classId)
const filled = computed(() => properties.value.fillerRatio > 0)
const range = computed(() => consistencySpan(props.plan))
const consistency = computed({
  get: () => draft.value.consistency,
  set: (c: number | undefined) => {
    if (c !== undefined) draft.value.consistency = c
  },
})
const whole = computed({
  get: () => Math.round(consistency.value),
  set: (v: number) => (consistency.value = v),
})

const METHODS = [
  { value: 'weighed', label: 'Weighed' },
  { value: 'by_volume', label: 'By scoop' },
  { value: 'by_eye', label: 'By eye' },
] as const
/** A filled mix goes in at once: there is no bed of powder to look at. */
const methods = computed(() => METHODS.filter((m) => m.value !== 'by_eye' || !filled.value))
function chooseMethod(method: RatioMethod) {
  draft.value.ratioMethod = method
  if (method === 'by_eye') draft.value.siftStage = nearestStage(classId.value, draft.value.consistency).stage
}
watch(filled, (now) => {
  if (now && draft.value.ratioMethod === 'by_eye') draft.value.ratioMethod = 'weighed'
})

const byWeight = computed({
  get: () => powderPartsByWeight(consistency.value),
  set: (parts) => (consistency.value = consistencyFromPartsByWeight(parts)),
})
const byScoop = computed({
  get: () => scoopParts(consistency.value, classId.value, draft.value.scoop),
  set: (parts) => (consistency.value = consistencyOfScoops(parts, classId.value, draft.value.scoop)),
})
const packings = PACKINGS.map((value) => ({ value, label: PACKING_WORDS[value] }))
function takeScoop(change: Partial<Scoop>) {
  Object.assign(draft.value, changeScoop(consistency.value, classId.value, draft.value.scoop, change))
}
const scoopG = computed({
  get: () => scoopWeighsG(draft.value.scoop),
  set: (massG: number | undefined) => {
    takeScoop(massG === undefined ? { weighedKgM3: null } : weighedScoop(massG, draft.value.scoop))
  },
})
const scoopBounds = computed(() => scoopBoundsG(draft.value.scoop))

const really = computed(() => ratioRange(draft.value, consistency.value))
/** The school that goes by the mould: so much of it in water. Said for plain mixes; a filler takes up room of its own. */
const waterPctOfMould = computed(() =>
  filled.value
    ? undefined
    : 100 * waterFractionOfMould(consistency.value, properties.value.particleDensityKgM3),
)

const printed = ref('')
function takeReading(read: LabelReading) {
  if (read.by === 'volume') draft.value.ratioMethod = 'by_volume'
  consistency.value =
    read.by === 'weight'
      ? read.consistency
      : consistencyOfScoops(read.powderParts, classId.value, draft.value.scoop)
}

const place = (c: number) =>
  `${Math.min(100, Math.max(0, (100 * (c - range.value.min)) / (range.value.max - range.value.min)))}%`
</script>

<template>
  <div class="consistency">
    <div class="slide">
      <span :id="id" class="label">Stiff <span class="grow" /> Thin</span>
      <div class="band" aria-hidden="true">
        <span
          class="usual"
          :style="{
            left: place(properties.consistencyLow),
            right: `calc(100% - ${place(properties.consistencyHigh)})`,
          }"
        />
        <span class="use" :style="{ left: place(properties.useConsistency) }">{{
          Math.round(properties.useConsistency)
        }}</span>
      </div>
      <Slider v-model="whole" :min="range.min" :max="range.max" aria-label="Consistency" />
      <TradeOffs :plan="plan" />
    </div>
    <ChoicePills
      :model-value="draft.ratioMethod"
      label="How the ratio is met"
      :options="methods"
      @update:model-value="chooseMethod($event as RatioMethod)"
    />
    <div class="pair">
      <QuantityField
        v-model="consistency"
        kind="number"
        label="Consistency"
        :decimals="1"
        suffix="water to 100"
        :min="15"
        :max="200"
        @problem="emit('problem', 'consistency', $event)"
      />
      <QuantityField
        v-if="draft.ratioMethod === 'weighed'"
        v-model="byWeight"
        kind="number"
        :decimals="2"
        label="Powder by weight"
        suffix=": 1 water"
        :min="0.5"
        :max="6.6"
        @problem="emit('problem', 'byWeight', $event)"
      />
      <QuantityField
        v-if="draft.ratioMethod === 'by_volume'"
        v-model="byScoop"
        kind="number"
        :decimals="2"
        label="Powder by scoop"
        suffix=": 1 water"
        :min="0.4"
        :max="8"
        @problem="emit('problem', 'byScoop', $event)"
      />
    </div>
    <template v-if="draft.ratioMethod === 'by_volume'">
      <ChoicePills
        :model-value="draft.scoop.packing"
        label="How the powder gets into the scoop"
        :options="packings"
        @update:model-value="takeScoop({ packing: $event as never, weighedKgM3: null })"
      />
      <div class="pair">
        <QuantityField
          :model-value="draft.scoop.measureMl"
          kind="volume"
          label="The scoop holds"
          :min="LEAST_SCOOP_ML"
          :max="MOST_SCOOP_ML"
          @update:model-value="$event !== undefined && takeScoop({ measureMl: $event })"
          @problem="emit('problem', 'scoopMl', $event)"
        />
        <QuantityField
          v-model="scoopG"
          kind="mass"
          label="One weighed scoop"
          optional
          :min="scoopBounds.min"
          :max="scoopBounds.max"
          @problem="emit('problem', 'scoopG', $event)"
        />
      </div>
    </template>
    <SiftStages
      v-if="draft.ratioMethod === 'by_eye'"
      v-model="draft"
      :class-id="classId"
      :water-ml="waterMl"
    />
    <LabelReadingField
      v-model="printed"
      label="As printed on the bag, or in your notes"
      :class-id="classId"
      @reading="takeReading"
      @open="emit('problem', 'printed', $event ? 'Say which it means.' : '')"
    />
    <p class="soft small">
      By this way of measuring it comes to <b>{{ figure(really.low) }}–{{ figure(really.high) }}</b
      ><template v-if="draft.ratioMethod === 'by_volume' && draft.scoop.weighedKgM3 === null"
        >, by how the powder packs: one weighed scoop narrows it</template
      >.
      <template v-if="waterPctOfMould">
        By the mould: water to <b>{{ figure(waterPctOfMould) }} %</b> of what it holds makes enough, with no
        spare.
      </template>
      The mark on the band is this plaster’s use consistency.
    </p>
  </div>
</template>

<style scoped>
.consistency {
  display: grid;
  gap: var(--s3);
}
.label {
  display: flex;
  font-weight: 600;
}
.grow {
  flex: 1;
}
.slide {
  padding: 0 1.1rem;
}
.band {
  position: relative;
  height: 1.7rem;
}
.usual {
  position: absolute;
  bottom: 0.15rem;
  height: 0.4rem;
  border-radius: 1rem;
  background: var(--wet-light);
}
.use {
  position: absolute;
  bottom: 0.1rem;
  transform: translateX(-50%);
  font-weight: 700;
  border-bottom: 0.5rem solid var(--ink);
  line-height: 1.1;
  font-size: 0.85rem;
  padding: 0 0.15rem;
}
.slide :deep(.p-slider) {
  margin: 1rem 0;
}
</style>
