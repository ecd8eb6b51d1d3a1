<script setup lang="ts" generic="T extends string, Multiple extends boolean = false">
/** A few choices, all in sight. Usage: <ChoicePills v-model="manner" label="…" :options="[{ value, label }]" /> */
import SelectButton from 'primevue/selectbutton'

defineProps<{ label: string; options: readonly { value: T; label: string }[]; multiple?: Multiple }>()
const model = defineModel<Multiple extends true ? T[] : T>({ required: true })
</script>

<template>
  <SelectButton
    v-model="model"
    :options="[...options]"
    option-value="value"
    option-label="label"
    :multiple="multiple"
    :allow-empty="multiple === true"
    :aria-label="label"
  />
</template>
