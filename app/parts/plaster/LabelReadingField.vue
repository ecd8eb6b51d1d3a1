<script setup lang="ts">
/**
 * A ratio as it is printed or noted, read as what it says for this class of plaster. Where it can mean two things both
 * are offered, and neither is taken by itself; what cannot be read says what was understood.
 * Usage: <LabelReadingField v-model="printed" label="As printed" :class-id="classId" @reading="take" />
 */
import InputText from 'primevue/inputtext'
import { computed, onBeforeUnmount, ref, useId, watch } from 'vue'
import { parseRatioLabel, type LabelReading, type PlasterClassId } from '#core/plaster'
import { useUnits } from '~/parts/show/useUnits'
import { labelReadingWords } from '~/parts/form/quantityWords'
import { labelErrorWords } from '~/parts/words/plaster'

const props = defineProps<{ label: string; classId: PlasterClassId }>()
const printed = defineModel<string>({ required: true })
const emit = defineEmits<{ reading: [reading: LabelReading]; open: [open: boolean] }>()
const units = useUnits()
const id = useId()
const example = computed(() => (units.system() === 'metric' ? '28 ml per 100 g' : '14 cups to 10 lb'))

const answer = computed(() =>
  printed.value.trim() === '' ? undefined : parseRatioLabel(printed.value, props.classId, units.habits()),
)
const readings = computed(() => (answer.value?.ok ? answer.value.readings : []))
/** Which of several was meant, once it was said. */
const chosen = ref<LabelReading>()
const typed = ref(false)
watch(answer, () => {
  chosen.value = undefined
  const [only, ...others] = readings.value
  emit('open', others.length > 0)
  // What a kept card says was read when it was typed: only typing reads it again.
  if (only && others.length === 0 && typed.value) emit('reading', only)
})
onBeforeUnmount(() => emit('open', false))
function choose(reading: LabelReading) {
  chosen.value = reading
  emit('open', false)
  emit('reading', reading)
}
const words = computed(() => {
  if (answer.value && !answer.value.ok) return labelErrorWords(answer.value, example.value)
  const read = chosen.value ?? (readings.value.length === 1 ? readings.value[0] : undefined)
  if (read) return `Read as ${labelReadingWords(read)}.`
  return readings.value.length > 1 ? 'This can be read in two ways. Which does it mean?' : ''
})
</script>

<template>
  <div class="printed">
    <label :for="id">{{ label }}</label>
    <InputText
      :id="id"
      v-model="printed"
      :placeholder="example"
      autocomplete="off"
      maxlength="80"
      :aria-describedby="`${id}-reading`"
      @update:model-value="typed = true"
    />
    <small :id="`${id}-reading`" :class="{ wrong: answer && !answer.ok }" role="status">{{ words }}</small>
    <span v-if="readings.length > 1" class="outline-buttons">
      <button
        v-for="reading in readings"
        :key="labelReadingWords(reading)"
        type="button"
        class="outline-button"
        :aria-pressed="chosen === reading"
        @click="choose(reading)"
      >
        {{ labelReadingWords(reading) }}
      </button>
    </span>
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
