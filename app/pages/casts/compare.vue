<script setup lang="ts">
const route = useRoute()
const ids = computed(() =>
  String(route.query.of ?? '')
    .split(',')
    .filter(Boolean)
    .slice(0, 2),
)
</script>

<template>
  <CompareCasts :key="ids.join()" :ids="ids" />
</template>
