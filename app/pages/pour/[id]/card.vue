<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <PourCard :id="id" />
</template>
