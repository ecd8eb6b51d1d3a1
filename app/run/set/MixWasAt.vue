<script setup lang="ts">
/** How warm the mix really was, remembered or read elsewhere: its setting follows. Usage: <MixWasAt v-model="open" :facts :pour-id /> */
import Button from 'primevue/button'
import { ref } from 'vue'
import { SLURRY_TEMP_C } from '#core/mix'
import type { PourOutlook } from '#core/pour'
import { usePours } from '~/stores/pours'

const props = defineProps<{ facts: PourOutlook; pourId: string }>()
const open = defineModel<boolean>({ required: true })
const pours = usePours()
const tempC = ref<number>()
const problem = ref('')

function keep() {
  const { settingStartMs, batch, inHand } = props.facts
  if (tempC.value === undefined || problem.value || settingStartMs === undefined) return
  // While it was a slurry, and behind the reading that counted until now: the last one does.
  const atMs = inHand.mixReadMs === undefined ? settingStartMs : inHand.mixReadMs + 1
  const ofBowl = batch > 0 ? { batch } : {}
  void pours.recordAt(props.pourId, [
    { atMs, body: { type: 'temperature', place: 'slurry', tempC: tempC.value, ...ofBowl } },
  ])
  tempC.value = undefined
  open.value = false
}
</script>

<template>
  <SheetDialog v-model="open" title="How warm was the mix?">
    <QuantityField
      v-model="tempC"
      kind="temp"
      label="The mix, while it was poured"
      :min="SLURRY_TEMP_C.least"
      :max="SLURRY_TEMP_C.most"
      optional
      @problem="problem = $event"
    />
    <Button label="Keep it" :disabled="tempC === undefined || problem !== ''" @click="keep" />
  </SheetDialog>
</template>
