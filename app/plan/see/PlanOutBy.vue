<script setup lang="ts">
/**
 * Where something else says when the piece must be out (the tide, a lesson, the gel, closing time): the chance that it is
 * strong enough by then. Asked where there is a reason, else when somebody asks. Usage: <PlanOutBy v-if="…" v-model="byMin" :presses :outcome />
 */
import { computed } from 'vue'
import { chanceBy } from '#core/forecast'
import type { PlanOutcome } from '#core/pour'
import { durationText } from '~/parts/show/time'
import { chanceWords } from '~/parts/words/deadline'
import { outOf } from './timeline'

const props = defineProps<{
  /** What presses, where the mould itself says it. */
  presses: string | undefined
  outcome: PlanOutcome
}>()
/** 0: nothing is said yet. */
const byMin = defineModel<number>({ required: true })
const strong = computed(() => outOf(props.outcome).strong)
const tenths = computed(() => Math.round(10 * chanceBy(strong.value, 60 * byMin.value)))
const often = computed(() => chanceWords(chanceBy(strong.value, 60 * byMin.value)))
</script>

<template>
  <div class="by">
    <QuantityField
      :model-value="byMin === 0 ? undefined : byMin"
      kind="number"
      :decimals="0"
      label="It must be out by"
      :suffix="`min after the first powder${presses ? ` (${presses})` : ''}`"
      optional
      :min="5"
      :max="2880"
      @update:model-value="byMin = $event ?? 0"
    />
    <p v-if="byMin > 0" role="status" data-testid="out-by">
      Strong enough by then: <b>{{ often }}</b>.
      <template v-if="tenths < 9">Nine in ten have it after {{ durationText(strong.high) }}.</template>
    </p>
  </div>
</template>

<style scoped>
.by {
  display: grid;
  gap: var(--s2);
}
</style>
