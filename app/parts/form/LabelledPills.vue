<script setup lang="ts" generic="T extends string, Multiple extends boolean = false">
/** ChoicePills with its name written above. Usage: <LabelledPills v-model="flex" label="Its wall" :options="…" /> */
defineProps<{ label: string; options: readonly { value: T; label: string }[]; multiple?: Multiple }>()
const model = defineModel<Multiple extends true ? T[] : T>({ required: true })
</script>

<template>
  <div class="choice">
    <span aria-hidden="true">{{ label }}</span>
    <ChoicePills v-model="model as never" :label="label" :options="options" :multiple="multiple" />
  </div>
</template>

<style scoped>
.choice {
  display: grid;
  gap: var(--s1);
  align-content: start;
  font-weight: 600;
}
</style>
