<script setup lang="ts">
/** It leaks: with what it is stopped, what ran out, and whether there is still enough. Usage: <RunLeak v-model:lost-ml v-model:plug :facts :sound @problem @record /> */
import Button from 'primevue/button'
import { computed } from 'vue'
import { LEAK_PLUGS, overMl, type EventBody, type LeakPlug, type PourOutlook } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { LEAK_WORDS } from '~/parts/words/pour'

const props = defineProps<{
  facts: PourOutlook
  /** Whether everything typed could be read. */
  sound: boolean
}>()
const lostMl = defineModel<number>('lostMl', { required: true })
const plug = defineModel<LeakPlug>('plug', { required: true })
const emit = defineEmits<{ problem: [message: string]; record: [bodies: EventBody[]] }>()
const units = useUnits()

const PLUGS = LEAK_PLUGS.map((value) => ({ value, label: LEAK_WORDS[value] }))
/** What is over, or missing, once so much has run out. */
const stillOverMl = computed(() => overMl(props.facts, lostMl.value))
function stop(thenAnotherBowl: boolean) {
  const inBatch = props.facts.batch > 0 ? { batch: props.facts.batch } : {}
  const missingMl = Math.max(1, Math.round(-stillOverMl.value))
  emit('record', [
    { type: 'leaked', plug: plug.value, lostMl: lostMl.value, ...inBatch },
    ...(thenAnotherBowl ? [{ type: 'ran_short' as const, missingMl, ...inBatch }] : []),
  ])
}
</script>

<template>
  <section>
    <h3>It leaks</h3>
    <LabelledPills v-model="plug" label="Stopped with what is here" :options="PLUGS" />
    <QuantityField
      v-model="lostMl"
      kind="volume"
      label="About this much ran out"
      rough
      :min="0"
      :max="500000"
      @problem="emit('problem', $event)"
    />
    <p data-testid="leak">
      {{
        stillOverMl >= 0
          ? `Still enough: about ${units.roughVolume(stillOverMl)} over.`
          : `Not enough any more: about ${units.roughVolume(-stillOverMl)} short.`
      }}
    </p>
    <div class="pair">
      <Button label="It is stopped" severity="secondary" :disabled="!sound" @click="stop(false)" />
      <Button
        v-if="stillOverMl < 0"
        label="Stopped; mix what is missing"
        :disabled="!sound"
        @click="stop(true)"
      />
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: var(--s3);
}
h3 {
  font-size: 1.1rem;
}
</style>
