<script setup lang="ts">
/**
 * What if: other water, stirring, mix, thickness, mould or room, drawn over the curve as it is, while it is dragged.
 * Usage: <WhatIf v-model="open" :problem :pace :plan />
 */
import Button from 'primevue/button'
import { computed, defineAsyncComponent, reactive, shallowRef, watch } from 'vue'
import { curveUntilS, forecastAt, type Pace, type SetCurve, type SetProblem } from '#core/forecast'
import { MOULD_MATERIALS, type MouldMaterial } from '#core/mould'
import { problemIf, type PourPlan, type WhatIf } from '#core/pour'
import { MAX_WATER_TEMP_C, chemicalMinimumConsistency } from '#core/mix'
import { figure } from '~/parts/show/figures'
import { fileName } from '~/parts/show/saveFile'
import { durationText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { MATERIAL_WORDS } from '~/parts/words/mould'
import { askForecast } from '~/workers/askForecast'

const SetChart = defineAsyncComponent(() => import('./SetChart.vue'))

const props = defineProps<{ problem: SetProblem; pace: Pace; plan: PourPlan }>()
const open = defineModel<boolean>({ required: true })
const units = useUnits()

const change = reactive<WhatIf>({})
function clear() {
  for (const key of Object.keys(change)) delete change[key as keyof WhatIf]
}

interface Dial {
  key: 'waterTempC' | 'stirS' | 'consistency' | 'sizeMm' | 'roomTempC'
  label: string
  min: number
  max: number
  step: number
  now: number
  show: (value: number) => string
}
const dials = computed<Dial[]>(() => {
  const { setting, piece, around } = props.problem
  const { properties } = props.plan.plaster
  const lowest = Math.max(
    properties.consistencyLow * 0.85,
    chemicalMinimumConsistency(properties.hemihydrateFraction) + 1,
  )
  return [
    {
      key: 'waterTempC',
      label: 'Water',
      min: 2,
      max: MAX_WATER_TEMP_C,
      step: 1,
      now: props.plan.waterTempC,
      show: units.temp,
    },
    { key: 'stirS', label: 'Stirring', min: 30, max: 900, step: 30, now: setting.stirS, show: durationText },
    {
      key: 'consistency',
      label: 'Water to 100 of plaster',
      min: Math.ceil(lowest),
      max: Math.floor(properties.consistencyHigh * 1.15),
      step: 1,
      now: setting.consistency,
      show: (v) => figure(v),
    },
    {
      key: 'sizeMm',
      label: piece.shape === 'slab' ? 'Thickness' : 'Radius',
      min: 3,
      max: 200,
      step: 1,
      now: piece.sizeMm,
      show: units.length,
    },
    {
      key: 'roomTempC',
      label: 'Room, mould and ground',
      min: 0,
      max: 45,
      step: 1,
      now: around.airTempC,
      show: units.temp,
    },
  ]
})
const materials = computed(() => MOULD_MATERIALS.map((value) => ({ value, label: MATERIAL_WORDS[value] })))

const other = computed(() => problemIf(props.problem, props.plan, change))
const changed = computed(() => Object.keys(change).length > 0)
const at = (problem: SetProblem) => forecastAt(problem, Math.exp(props.pace.meanLn), props.pace.sigmaLn)
const asIs = computed(() => at(props.problem))
const asIf = computed(() => at(other.value))
const untilS = computed(() =>
  Math.max(...[asIs.value, asIf.value].map((f) => curveUntilS(f.demould.recommendedS, undefined))),
)

const curve = shallowRef<SetCurve>()
const otherCurve = shallowRef<SetCurve>()
watch(
  [open, () => props.problem, untilS],
  ([isOpen]) =>
    isOpen &&
    askForecast(
      'what is',
      { kind: 'curve', problem: props.problem, pace: props.pace, untilS: untilS.value },
      (made) => {
        curve.value = made
      },
    ),
  { immediate: true },
)
watch([open, other, untilS], ([isOpen, problem]) => {
  if (!isOpen || !changed.value) {
    otherCurve.value = undefined
    return
  }
  askForecast('what if', { kind: 'curve', problem, pace: props.pace, untilS: untilS.value }, (made) => {
    otherCurve.value = made
  })
})

const laterS = computed(() => asIf.value.demould.recommendedS - asIs.value.demould.recommendedS)
const saying = computed(() => {
  if (!changed.value) return 'Drag one: what would be is drawn over what is.'
  const s = Math.abs(laterS.value)
  const out =
    s < 45 ? 'Out at the same time' : `Out ${durationText(s)} ${laterS.value > 0 ? 'later' : 'sooner'}`
  const { peakC } = asIf.value.marks
  return `${out}; hottest inside ${units.temp(peakC)} instead of ${units.temp(asIs.value.marks.peakC)}.`
})
const marks = computed(() => [
  { atMin: asIs.value.demould.recommendedS / 60, label: 'out', warm: true },
  ...(changed.value ? [{ atMin: asIf.value.demould.recommendedS / 60, label: 'out, if', warm: false }] : []),
])
</script>

<template>
  <SheetDialog v-model="open" title="What if" wide>
    <p class="saying" role="status" data-testid="what-if">{{ saying }}</p>
    <SetChart
      v-if="curve"
      :curve="curve"
      :other="otherCurve && { label: 'If', curve: otherCurve }"
      :traces="[]"
      :start-ms="0"
      :marks="marks"
      :cues="[]"
      :spoken="saying"
      :file-name="fileName(plan.piece, 'what-if')"
    />
    <div class="dials">
      <label v-for="dial in dials" :key="dial.key" class="dial">
        <span>{{ dial.label }} <b>{{ dial.show(change[dial.key] ?? dial.now) }}</b></span>
        <input
          type="range"
          :min="dial.min"
          :max="dial.max"
          :step="dial.step"
          :value="change[dial.key] ?? dial.now"
          @input="change[dial.key] = Number(($event.target as HTMLInputElement).value)"
        />
      </label>
      <LabelledSelect
        label="Another mould"
        :model-value="change.material ?? ('' as MouldMaterial)"
        :options="materials"
        placeholder="As it is"
        @update:model-value="change.material = $event as MouldMaterial"
      />
    </div>
    <div class="ends">
      <Button severity="secondary" label="As it is" :disabled="!changed" @click="clear" />
    </div>
  </SheetDialog>
</template>

<style scoped>
.saying {
  font-weight: 700;
  font-size: 1.15rem;
}
.dials {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(13rem, 1fr));
  gap: var(--s3) var(--s5);
}
.dial {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
input[type='range'] {
  width: 100%;
  min-height: 44px;
  accent-color: var(--warm);
}
.ends {
  display: flex;
  justify-content: flex-end;
  gap: var(--s3);
}
</style>
