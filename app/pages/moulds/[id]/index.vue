<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <MouldRecord :id="id" />
</template>
