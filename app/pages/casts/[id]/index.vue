<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <CastRecord :id="id" />
</template>
