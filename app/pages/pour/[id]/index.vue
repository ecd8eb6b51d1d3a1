<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <RunRoom :id="id" />
</template>
