<script setup lang="ts" generic="T extends string">
/** A choice from a list, named for everyone. Usage: <LabelledSelect v-model="kind" label="…" :options="[{ value, label }]" /> */
import Select from 'primevue/select'
import { computed, useId } from 'vue'

const props = defineProps<{
  label: string
  options: { value: T; label: string }[]
  placeholder?: string
}>()
/** The list takes an empty value for none chosen: then its words stand in. */
const standIn = computed(() => props.placeholder ?? props.options.find((o) => o.value === '')?.label)
const model = defineModel<T>({ required: true })
const id = useId()
</script>

<template>
  <div class="field">
    <span :id="id" class="label">{{ label }}</span>
    <Select
      v-model="model"
      :aria-labelledby="id"
      :options="options"
      option-value="value"
      option-label="label"
      :placeholder="standIn"
      scroll-height="22rem"
    />
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: var(--s1);
  min-width: 0;
}
.label {
  font-weight: 600;
}
.field :deep(.p-select) {
  width: 100%;
  min-width: 0;
}
</style>
