<script setup lang="ts">
/** What would dry it sooner, and by how much. Usage: <DrySavings :savings /> */
import type { DryingSaving } from '#core/drying'
import { durationText } from '~/parts/show/time'
import { CHANGE_WORDS } from './words'

defineProps<{ savings: readonly DryingSaving[] }>()
</script>

<template>
  <ul v-if="savings.length > 0" class="savings" aria-label="What would be quicker">
    <li v-for="s in savings" :key="s.change">
      <span>{{ CHANGE_WORDS[s.change] }}</span>
      <b>saves {{ durationText(s.asIsS - s.withS) }}</b>
    </li>
  </ul>
</template>

<style scoped>
.savings {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: var(--s3);
  padding: 0.25rem 0;
  border-bottom: 1px solid color-mix(in srgb, currentColor 22%, transparent);
}
</style>
