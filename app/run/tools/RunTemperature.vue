<script setup lang="ts">
/** A temperature that was read and is typed in. Usage: <RunTemperature v-model="open" :batch @record="put" /> */
import Button from 'primevue/button'
import { ref } from 'vue'
import type { EventBody } from '#core/pour'

const props = defineProps<{
  /** The bowl in hand: a temperature of the slurry is its own. */
  batch: number
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ record: [body: EventBody] }>()

const tempC = ref<number>()
const place = ref<'slurry' | 'surface' | 'room'>('slurry')
const PLACES = [
  { value: 'slurry', label: 'Slurry' },
  { value: 'surface', label: 'Surface' },
  { value: 'room', label: 'Room' },
]
const problem = ref('')
function keep() {
  if (tempC.value === undefined || problem.value) return
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
    <p class="soft">
      Read while it can still be poured, a slurry temperature replaces the estimate and the setting times
      follow it. Later readings are of the piece: they are kept, and move no clock.
    </p>
    <Button label="Keep it" :disabled="tempC === undefined || problem !== ''" @click="keep" />
  </SheetDialog>
</template>
