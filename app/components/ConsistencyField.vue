<script setup lang="ts">
/**
 * One number, consistency, from every side: slider, parts of water, powder : water by weight and by scoop.
 * Usage: <ConsistencyField v-model="consistency" :properties="plaster.properties" />
 */
import Slider from 'primevue/slider'
import { computed, useId } from 'vue'
import {
  consistencyFromPartsByVolume,
  consistencyFromPartsByWeight,
  powderPartsByVolume,
  powderPartsByWeight,
  waterFractionOfMould,
} from '#core/mix'
import { plasterClass, type PlasterProperties } from '#core/plaster'

const props = defineProps<{ properties: PlasterProperties }>()
const model = defineModel<number>({ required: true })
const emit = defineEmits<{ problem: [field: string, message: string] }>()
const id = useId()

const bulk = computed(() => plasterClass(props.properties.classId).bulkDensityKgM3)
const range = computed(() => ({
  min: Math.max(18, Math.floor(props.properties.consistencyLow * 0.85)),
  max: Math.ceil(props.properties.consistencyHigh * 1.15),
}))
const whole = computed({ get: () => Math.round(model.value), set: (v) => (model.value = v) })
const byWeight = computed({
  get: () => powderPartsByWeight(model.value),
  set: (parts) => (model.value = consistencyFromPartsByWeight(parts)),
})
const byScoop = computed({
  get: () => powderPartsByVolume(model.value, bulk.value.value),
  set: (parts) => (model.value = consistencyFromPartsByVolume(parts, bulk.value.value)),
})
/** A scoop is loose or packed: what the same count of scoops could really give. */
const scoopRange = computed(() => ({
  low: consistencyFromPartsByVolume(byScoop.value, bulk.value.high),
  high: consistencyFromPartsByVolume(byScoop.value, bulk.value.low),
}))
/** The school that goes by the mould: so much of it in water. Said for plain mixes; a filler takes up room of its own. */
const waterPctOfMould = computed(() =>
  props.properties.fillerRatio > 0
    ? undefined
    : 100 * waterFractionOfMould(model.value, props.properties.particleDensityKgM3),
)
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
          properties.useConsistency
        }}</span>
      </div>
      <Slider v-model="whole" :min="range.min" :max="range.max" aria-label="Consistency" />
    </div>
    <div class="ways">
      <QuantityField
        v-model="model"
        kind="number"
        label="Consistency"
        :decimals="1"
        suffix="water to 100"
        :min="15"
        :max="200"
        @problem="emit('problem', 'consistency', $event)"
      />
      <QuantityField
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
    <p v-if="waterPctOfMould" class="small">
      By the mould: water to <b>{{ waterPctOfMould.toFixed(0) }} %</b> of what it holds makes enough, with no
      spare.
    </p>
    <p class="soft small">
      Scooped, the same count gives {{ scoopRange.low.toFixed(0) }}–{{ scoopRange.high.toFixed(0) }}, by how
      the powder is packed. The mark on the band is this plaster’s use consistency.
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
</style>
