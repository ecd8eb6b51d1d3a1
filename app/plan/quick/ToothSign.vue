<script setup lang="ts">
/** A tooth, drawn as the other signs are. Usage: <ToothSign :size="28" /> */
defineProps<{ size: number }>()
</script>

<template>
  <svg
    :width="size"
    :height="size"
    viewBox="0 0 24 24"
    fill="none"
    stroke="currentColor"
    stroke-width="2"
    stroke-linecap="round"
    stroke-linejoin="round"
    aria-hidden="true"
  >
    <path
      d="M7.5 3C5 3 3.5 4.8 3.5 7.4c0 3.6 1.9 4.6 2.4 8.1.3 2.3.7 5.5 2.2 5.5 1.8 0 1-5.4 3.9-5.4s2.1 5.4 3.9 5.4c1.5 0 1.9-3.2 2.2-5.5.5-3.5 2.4-4.5 2.4-8.1C20.500 4.800 19 3 16.500 3 14.400 3 13.500 4 12 4S9.600 3 7.500 3z"
    />
  </svg>
</template>
