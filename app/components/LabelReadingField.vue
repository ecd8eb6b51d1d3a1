<script setup lang="ts">
/**
 * A ratio as it is printed or noted, read as what it says; what cannot be read says what was understood.
 * Usage: <LabelReadingField v-model="printed" label="As printed" @reading="take" />
 */
import InputText from 'primevue/inputtext'
import { computed, useId, watch } from 'vue'
import { parseRatioLabel, type LabelReading } from '#core/plaster'
import { useUnits } from '~/composables/useUnits'
import { labelErrorWords } from '~/utils/words'

defineProps<{ label: string }>()
const printed = defineModel<string>({ required: true })
const emit = defineEmits<{ reading: [reading: LabelReading] }>()
const units = useUnits()
const id = useId()

const reading = computed(() =>
  printed.value.trim() === '' ? undefined : parseRatioLabel(printed.value, units.system()),
)
watch(reading, (read) => {
  if (read?.ok) emit('reading', read)
})
const words = computed(() => {
  const read = reading.value
  if (!read) return ''
  if (!read.ok) return labelErrorWords(read)
  return read.by === 'weight'
    ? `Read as ${read.consistency.toFixed(1)} of water to 100 by weight.`
    : `Read as ${Number(read.powderParts.toFixed(2))} of powder to 1 of water by volume.`
})
</script>

<template>
  <div class="printed">
    <label :for="id">{{ label }}</label>
    <InputText
      :id="id"
      v-model="printed"
      placeholder="100 : 30, or 28 ml per 100 g"
      autocomplete="off"
      maxlength="80"
      :aria-describedby="`${id}-reading`"
    />
    <small :id="`${id}-reading`" :class="{ wrong: reading && !reading.ok }" role="status">{{ words }}</small>
  </div>
</template>

<style scoped>
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
