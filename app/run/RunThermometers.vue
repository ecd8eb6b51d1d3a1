<script setup lang="ts">
/** What the thermometers in this pour read, large; a reading can be kept. Usage: <RunThermometers :pour-id :facts @record /> */
import { Thermometer } from '@lucide/vue'
import type { EventBody, PourFacts } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { useThermometers } from './useThermometers'

const props = defineProps<{ pourId: string; facts: PourFacts }>()
const emit = defineEmits<{ record: [body: EventBody] }>()
const units = useUnits()
const { put, others, putHere, takeOff, cite } = useThermometers(props.pourId, () => props.facts)

type Put = (typeof put.value)[number]
function keep({ device, channel, now }: Put) {
  if (typeof now?.tempC !== 'number') return
  emit('record', {
    type: 'temperature',
    place: 'slurry',
    tempC: now.tempC,
    reading: cite(device, channel, now.atMs),
    ...(props.facts.batch > 0 ? { batch: props.facts.batch } : {}),
  })
}
</script>

<template>
  <div v-if="put.length > 0 || others.length > 0" class="thermometers">
    <div v-for="t in put" :key="t.key" class="one" data-testid="thermometer">
      <Thermometer :size="24" aria-hidden="true" />
      <span class="figure">{{ typeof t.now?.tempC === 'number' ? units.temp(t.now.tempC) : '–' }}</span>
      <span class="name">{{ t.name }}<template v-if="!t.isHere"> says nothing</template></span>
      <button v-if="typeof t.now?.tempC === 'number'" type="button" class="ghost" @click="keep(t)">
        Keep this
      </button>
      <button type="button" class="ghost" @click="takeOff(t.device, t.channel)">Stop using it</button>
    </div>
    <button
      v-for="t in others"
      :key="t.key"
      type="button"
      class="ghost"
      @click="putHere(t.device, t.channel)"
    >
      {{ t.at ? 'Move' : 'Use' }} {{ t.name }}{{ t.at ? ' here from another pour' : '' }}
    </button>
  </div>
</template>

<style scoped>
.thermometers,
.one {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
}
.figure {
  font-size: 2rem;
}
</style>
