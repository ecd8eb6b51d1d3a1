<script setup lang="ts">
/**
 * One number, consistency, met by any school: weighed, by scoop, by eye, or read off a label. Changing the school keeps
 * the mix. Usage: <ConsistencyField v-model="draft" :plaster :water-ml @problem />
 */
import InputText from 'primevue/inputtext'
import Slider from 'primevue/slider'
import { computed, ref, useId, watch } from 'vue'
import {
  SIFT_STAGES,
  bulkDensityFromScoop,
  bulkDensityOf,
  consistencyBySifting,
  consistencyFromPartsByVolume,
  consistencyFromPartsByWeight,
  nearestStage,
  powderPartsByVolume,
  powderPartsByWeight,
  ratioRange,
  waterFractionOfMould,
  type RatioMethod,
  type SiftStage,
} from '#core/mix'
import { PACKINGS, parseRatioLabel } from '#core/plaster'
import type { PourPlan } from '#core/pour'
import { useUnits } from '~/composables/useUnits'
import type { PlanDraft } from '~/utils/planDraft'
import { PACKING_WORDS, SIFT_STAGE_WORDS, labelErrorWords } from '~/utils/words'

const props = defineProps<{
  plaster: PourPlan['plaster']
  /** Water of the whole job, ml: what one starts from. */
  waterMl: number | undefined
}>()
const draft = defineModel<PlanDraft>({ required: true })
const emit = defineEmits<{ problem: [field: string, message: string] }>()
const units = useUnits()
const id = useId()

const properties = computed(() => props.plaster.properties)
const filled = computed(() => properties.value.fillerRatio > 0)
const range = computed(() => ({
  min: Math.max(18, Math.floor(properties.value.consistencyLow * 0.85)),
  max: Math.ceil(properties.value.consistencyHigh * 1.15),
}))
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
  if (method === 'by_eye')
    draft.value.siftStage = nearestStage(properties.value.classId, draft.value.consistency).stage
}
watch(filled, (now) => {
  if (now && draft.value.ratioMethod === 'by_eye') draft.value.ratioMethod = 'weighed'
})

const byWeight = computed({
  get: () => powderPartsByWeight(consistency.value),
  set: (parts) => (consistency.value = consistencyFromPartsByWeight(parts)),
})

const bulk = computed(() => bulkDensityOf(properties.value.classId, draft.value.scoop))
const byScoop = computed({
  get: () => powderPartsByVolume(consistency.value, bulk.value.value),
  set: (parts) => (consistency.value = consistencyFromPartsByVolume(parts, bulk.value.value)),
})
const packings = PACKINGS.map((value) => ({ value, label: PACKING_WORDS[value] }))
/** Another way of scooping is the same count of scoops: the mix moves, as it would in the bowl. */
function changeScoop(change: Partial<PlanDraft['scoop']>) {
  const parts = byScoop.value
  draft.value.scoop = { ...draft.value.scoop, ...change }
  byScoop.value = parts
}
const scoopWeighsG = computed({
  get: () => {
    const { weighedKgM3, measureMl } = draft.value.scoop
    return weighedKgM3 === null ? undefined : (weighedKgM3 * measureMl) / 1000
  },
  set: (massG: number | undefined) => {
    if (massG !== undefined)
      changeScoop({ weighedKgM3: bulkDensityFromScoop(massG, draft.value.scoop.measureMl) })
  },
})
/** No powder packs looser or tighter than this, kg/m³: past it the scoop or the scale was misread. */
const scoopBounds = computed(() => ({
  min: (400 * draft.value.scoop.measureMl) / 1000,
  max: (2000 * draft.value.scoop.measureMl) / 1000,
}))

const stages = computed(() =>
  SIFT_STAGES.map((stage) => ({
    value: stage,
    label: SIFT_STAGE_WORDS[stage].name,
    gives: consistencyBySifting(properties.value.classId, stage),
  })),
)
function chooseStage(stage: SiftStage) {
  draft.value.siftStage = stage
  consistency.value = Math.round(consistencyBySifting(properties.value.classId, stage).mid)
}
const stageOff = computed(() => {
  const gives = consistencyBySifting(properties.value.classId, draft.value.siftStage).mid
  return { gives, far: Math.abs(gives / consistency.value - 1) > 0.03 }
})

const really = computed(() => ratioRange(draft.value, consistency.value))
/** The school that goes by the mould: so much of it in water. Said for plain mixes; a filler takes up room of its own. */
const waterPctOfMould = computed(() =>
  filled.value
    ? undefined
    : 100 * waterFractionOfMould(consistency.value, properties.value.particleDensityKgM3),
)

const printed = ref('')
const reading = computed(() =>
  printed.value.trim() === '' ? undefined : parseRatioLabel(printed.value, units.system()),
)
watch(reading, (read) => {
  if (!read?.ok) return
  consistency.value =
    read.by === 'weight' ? read.consistency : consistencyFromPartsByVolume(read.powderParts, bulk.value.value)
})
const readingWords = computed(() => {
  const read = reading.value
  if (!read) return ''
  if (!read.ok) return labelErrorWords(read)
  return read.by === 'weight'
    ? `Read as ${read.consistency.toFixed(1)} of water to 100 by weight.`
    : `Read as ${Number(read.powderParts.toFixed(2))} of powder to 1 of water by volume.`
})

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
    </div>
    <ChoicePills
      :model-value="draft.ratioMethod"
      label="How the ratio is met"
      :options="methods"
      @update:model-value="chooseMethod($event as RatioMethod)"
    />
    <div class="ways">
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
        @update:model-value="changeScoop({ packing: $event as never, weighedKgM3: null })"
      />
      <div class="ways">
        <QuantityField
          :model-value="draft.scoop.measureMl"
          kind="volume"
          label="The scoop holds"
          :min="5"
          :max="20000"
          @update:model-value="$event !== undefined && changeScoop({ measureMl: $event })"
          @problem="emit('problem', 'scoopMl', $event)"
        />
        <QuantityField
          v-model="scoopWeighsG"
          kind="mass"
          label="One weighed scoop"
          optional
          :min="scoopBounds.min"
          :max="scoopBounds.max"
          @problem="emit('problem', 'scoopG', $event)"
        />
      </div>
    </template>
    <template v-if="draft.ratioMethod === 'by_eye'">
      <div class="stages" role="radiogroup" aria-label="Sift until it looks like">
        <button
          v-for="s in stages"
          :key="s.value"
          type="button"
          role="radio"
          :aria-checked="draft.siftStage === s.value"
          @click="chooseStage(s.value)"
        >
          <svg viewBox="0 0 60 34" aria-hidden="true">
            <path d="M2 4 L8 32 H52 L58 4" class="bowl" />
            <path d="M5 14 H55 L52 31 H8 Z" class="water" />
            <path :d="SIFT_STAGE_WORDS[s.value].picture" class="bed" />
          </svg>
          <b>{{ s.label }}</b>
          <span>{{ s.gives.mid.toFixed(0) }}</span>
          <small>{{ s.gives.low.toFixed(0) }}–{{ s.gives.high.toFixed(0) }}</small>
        </button>
      </div>
      <p class="small">
        <template v-if="waterMl"
          >Start from <b>{{ units.volume(waterMl) }}</b> of water. </template
        >{{ SIFT_STAGE_WORDS[draft.siftStage].how }}
        <template v-if="stageOff.far">
          That gives about {{ stageOff.gives.toFixed(0) }}, not the {{ consistency.toFixed(0) }} planned:
          choose the look again, or weigh.
        </template>
      </p>
    </template>
    <div class="printed">
      <label :for="`${id}-printed`">As printed on the bag, or in your notes</label>
      <InputText
        :id="`${id}-printed`"
        v-model="printed"
        placeholder="100 : 30, or 28 ml per 100 g"
        autocomplete="off"
        maxlength="80"
        :aria-describedby="`${id}-reading`"
      />
      <small :id="`${id}-reading`" :class="{ wrong: reading && !reading.ok }" role="status">{{
        readingWords
      }}</small>
    </div>
    <p class="soft small">
      Met this way it will really be <b>{{ really.low.toFixed(0) }}–{{ really.high.toFixed(0) }}</b
      ><template v-if="draft.ratioMethod === 'by_volume' && draft.scoop.weighedKgM3 === null"
        >, by how the powder packs: one weighed scoop narrows it</template
      >.
      <template v-if="waterPctOfMould">
        By the mould: water to <b>{{ waterPctOfMould.toFixed(0) }} %</b> of what it holds makes enough, with
        no spare.
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
.ways {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(10.5rem, 1fr));
}
.small {
  font-size: 0.9rem;
}
.stages {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s2);
}
.stages button {
  display: grid;
  justify-items: center;
  gap: 2px;
  padding: var(--s2);
  border: 2px solid var(--line);
  border-radius: 0.9rem;
  background: transparent;
  color: inherit;
  font: inherit;
  line-height: 1.2;
  cursor: pointer;
}
.stages button[aria-checked='true'] {
  border-color: var(--wet);
  background: var(--wet-light);
}
.stages svg {
  width: 100%;
  max-width: 7rem;
}
.bowl {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.water {
  fill: #9fc3ca;
}
.bed {
  fill: #f3efe4;
  stroke: var(--ink);
  stroke-width: 0.8;
}
.printed {
  display: grid;
  gap: var(--s1);
}
.printed label {
  font-weight: 600;
}
.wrong {
  color: var(--hot);
  font-weight: 600;
}
</style>
