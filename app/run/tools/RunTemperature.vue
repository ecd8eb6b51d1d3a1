<script setup lang="ts">
/**
 * A temperature that was read and is typed in.
 * Usage: <RunTemperature v-model="open" :batch :liquid @record="put" />
 */
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { SLURRY_TEMP_C } from '#core/mix'
import type { EventBody } from '#core/pour'
import { inOtherTempUnit } from '#core/units'
import { useUnits } from '~/parts/show/useUnits'

const props = defineProps<{
  /** The bowl in hand: a temperature of the slurry is its own. */
  batch: number
  /** It is still a slurry, not a piece: what is read of it is the temperature of the mix. */
  liquid: boolean
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ record: [body: EventBody] }>()
const units = useUnits()

const tempC = ref<number>()
const place = ref<'slurry' | 'surface' | 'room'>('slurry')
const PLACES = [
  { value: 'slurry', label: 'Slurry' },
  { value: 'surface', label: 'Surface' },
  { value: 'room', label: 'Room' },
]
const problem = ref('')
const isMix = (c: number) => c >= SLURRY_TEMP_C.least && c <= SLURRY_TEMP_C.most
/** A mix is never so warm or so cold: misread, or meant in the other unit. */
const impossible = computed(
  () => props.liquid && place.value === 'slurry' && tempC.value !== undefined && !isMix(tempC.value),
)
const meantC = computed(() => {
  if (!impossible.value) return undefined
  const otherC = inOtherTempUnit(tempC.value!, units.system() === 'us' ? 'F' : 'C')
  return isMix(otherC) ? otherC : undefined
})
const otherUnit = computed(() => (units.system() === 'us' ? '°C' : '°F'))
function keep() {
  if (tempC.value === undefined || problem.value || impossible.value) return
  const ofBowl = place.value === 'slurry' && props.batch > 0 ? { batch: props.batch } : {}
  emit('record', { type: 'temperature', place: place.value, tempC: tempC.value, ...ofBowl })
  tempC.value = undefined
  open.value = false
}
</script>

<template>
  <SheetDialog v-model="open" title="Temperature">
    <ChoicePills v-model="place" label="Where" :options="PLACES" />
    <QuantityField
      v-model="tempC"
      kind="temp"
      label="It reads"
      :min="-20"
      :max="95"
      optional
      @problem="problem = $event"
    />
    <p v-if="impossible" role="alert">
      A mix is between {{ units.temp(SLURRY_TEMP_C.least) }} and {{ units.temp(SLURRY_TEMP_C.most) }}; hotter
      or colder it does not set as forecast.
      <Button
        v-if="meantC !== undefined"
        :label="`It was ${otherUnit}: ${units.temp(meantC)}`"
        severity="secondary"
        @click="tempC = meantC"
      />
    </p>
    <p class="soft">
      Read while it can still be poured, a slurry temperature replaces the estimate and the setting times
      follow it. Later readings are of the piece: they are kept, and move no clock.
    </p>
    <Button label="Keep it" :disabled="tempC === undefined || problem !== '' || impossible" @click="keep" />
  </SheetDialog>
</template>
