<script setup lang="ts">
/** A page that goes to paper, with the way back. Usage: <PrintPage back="/plan" back-name="Back to the plan">…</PrintPage> */
import Button from 'primevue/button'

defineProps<{ back: string; backName: string }>()
const print = () => window.print()
</script>

<template>
  <div class="page">
    <div class="acts">
      <NuxtLink :to="back">{{ backName }}</NuxtLink>
      <Button label="Print it" @click="print" />
    </div>
    <slot />
  </div>
</template>

<style scoped>
.page {
  max-width: 56rem;
}
.acts a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  justify-content: space-between;
  align-items: center;
}
@media print {
  .acts a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
  }
  .acts {
    display: none;
  }
}
</style>
