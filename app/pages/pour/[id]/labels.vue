<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <BowlLabels :id="id" />
</template>
