<script setup lang="ts">
/** The figures that one way of finding a volume asks for. Usage: <MethodFields v-model="method" @problem="…" /> */
import { computed } from 'vue'
import type { VolumeMethod } from '#core/mould'
import { useUnits } from '~/parts/show/useUnits'
import { fieldValue, shownWay, withField } from './ways'

const props = defineProps<{
  /** These alone, where the rest goes without saying. */
  only?: readonly string[]
}>()
const method = defineModel<VolumeMethod>({ required: true })
const emit = defineEmits<{ problem: [field: string, message: string] }>()
const units = useUnits()
const fields = computed(() =>
  shownWay(method.value)
    .fields(method.value, units.volume)
    .filter(({ path }) => props.only?.includes(path) ?? true),
)
const put = (path: string, value: unknown) => (method.value = withField(method.value, path, value))
</script>

<template>
  <div class="fields">
    <template v-for="field in fields" :key="`${method.by}.${field.path}`">
      <QuantityField
        v-if="field.is === 'quantity'"
        :model-value="Number(fieldValue(method, field.path))"
        :kind="field.quantity"
        :label="field.label"
        :min="field.min"
        :max="field.max"
        :suffix="field.suffix"
        :decimals="field.decimals"
        :water="field.water"
        @update:model-value="put(field.path, $event)"
        @problem="emit('problem', field.path, $event)"
      />
      <LabelledSelect
        v-else-if="field.is === 'list'"
        :model-value="String(fieldValue(method, field.path))"
        :label="field.label"
        :options="field.options"
        @update:model-value="put(field.path, $event)"
      />
      <LabelledPills
        v-else
        :model-value="String(fieldValue(method, field.path))"
        :label="field.label"
        :options="field.options"
        @update:model-value="put(field.path, $event)"
      />
    </template>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(9.5rem, 1fr));
  align-content: start;
}
.fields > :deep(.choice) {
  grid-column: 1 / -1;
}
</style>
