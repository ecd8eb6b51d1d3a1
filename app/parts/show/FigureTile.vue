<script setup lang="ts">
/** One computed figure with its range, and where it came from one tap away. Usage: <FigureTile figure="16 MPa" what="…" origin="…">…</FigureTile> */
defineProps<{ figure: string; what: string; origin: string }>()
</script>

<template>
  <div class="slab ground-dry tile">
    <span class="figure">{{ figure }}</span>
    <span class="what">{{ what }}</span>
    <span><slot /></span>
    <details>
      <summary>where from</summary>
      <p>{{ origin }}</p>
    </details>
  </div>
</template>

<style scoped>
.tile {
  display: grid;
  gap: var(--s1);
  align-content: start;
  padding: var(--s3) var(--s4);
}
.figure {
  font-size: 1.8rem;
}
.what {
  font-weight: 600;
}
summary {
  cursor: pointer;
  color: var(--ink-soft);
  font-size: 0.9rem;
  min-height: 1.8rem;
}
p {
  font-size: 0.9rem;
}
</style>
