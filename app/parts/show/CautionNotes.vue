<script setup lang="ts">
/** The cautions of a plan, one under another. Usage: <CautionNotes :plan="plan" /> */
import type { PourPlan } from '#core/pour'
import { cautionsOfPlan } from './cautions'

defineProps<{ plan: PourPlan }>()
</script>

<template>
  <div class="cautions">
    <CautionNote v-for="caution in cautionsOfPlan(plan)" :id="caution" :key="caution" />
  </div>
</template>

<style scoped>
.cautions {
  display: grid;
  gap: var(--s2);
}
</style>
